declare module "unicode-name"

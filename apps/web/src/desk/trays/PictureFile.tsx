import type { RefObject } from "react"

/** A hidden field for files of pictures; it is opened by a click on it. @param camera whether the camera makes the picture */
export function PictureFile({
  field,
  label,
  several = false,
  camera = false,
  onFiles,
}: {
  field: RefObject<HTMLInputElement | null>
  label: string
  several?: boolean
  camera?: boolean
  onFiles: (files: File[]) => void
}) {
  return (
    <input
      ref={field}
      type="file"
      accept={camera ? "image/*" : "image/*,.svg"}
      capture={camera ? "environment" : undefined}
      multiple={several}
      hidden
      aria-label={label}
      onChange={(event) => {
        const files = [...(event.target.files ?? [])]
        // The same file may be chosen again.
        event.target.value = ""
        if (files.length > 0) onFiles(files)
      }}
    />
  )
}

-- A database as Biblon made it when its second table had come (format 1 of documents), with a damaged document.
create table documents (
  id text primary key,
  name text,
  opening text not null,
  created integer not null,
  changed integer not null,
  version integer not null
) strict;
-- The change that led from version to version + 1.
create table steps (
  document text not null references documents (id) on delete cascade,
  version integer not null,
  client text not null,
  step text not null,
  saved integer not null,
  primary key (document, version)
) strict, without rowid;
create table snapshots (
  document text not null references documents (id) on delete cascade,
  version integer not null,
  content text not null,
  primary key (document, version)
) strict;
-- Made from the layout when the shelf asks; can be thrown away at any time.
create table pictures (
  document text primary key references documents (id) on delete cascade,
  version integer not null,
  sheets integer not null,
  svg text not null
) strict;
-- Files that documents use, by their SHA-256.
create table assets (
  sha256 text primary key,
  bytes blob not null,
  type text not null,
  added integer not null
) strict, without rowid;
insert into documents values ('old', 'Old', 'The chain!', 1, 3, 1), ('broken', 'Broken', '', 2, 2, 0);
insert into snapshots values ('old', 0, '{"type": "doc", "attrs": {"styles": {"defaults": {"paragraph": {"align": "left", "direction": "ltr", "lineSpacing": {"rule": "multiple", "value": 1.25}, "spaceBefore": 0, "spaceAfter": 8, "spaceAlike": true, "indentLeft": 0, "indentRight": 0, "indentFirst": 0, "tabs": [], "borders": {}, "shading": null, "dropCap": null, "list": null, "hyphenate": false, "keepNext": false, "keepTogether": false, "orphans": 2, "widows": 2, "breakBefore": false}, "letters": {"family": "Tinos", "familyEastAsian": "Noto Sans JP", "familyComplex": "Noto Naskh Arabic", "size": 12, "bold": false, "italic": false, "underline": "none", "underlineColour": null, "strike": "none", "script": "none", "raise": 0, "caps": "none", "outline": false, "shadow": false, "colour": "#1e1a16", "highlight": null, "spacing": 0, "kerning": true, "ligatures": true, "language": "en-GB"}}, "styles": {"body": {"name": "Body", "parent": null, "next": null, "outline": null, "paragraph": {}, "letters": {}}, "title": {"name": "Title", "parent": "body", "next": "subtitle", "outline": null, "paragraph": {"align": "left", "indentFirst": 0, "lineSpacing": {"rule": "multiple", "value": 1.05}, "spaceAfter": 6, "keepNext": true, "hyphenate": false}, "letters": {"family": "Literata", "size": 26, "bold": true}}, "subtitle": {"name": "Subtitle", "parent": "body", "next": "body", "outline": null, "paragraph": {"align": "left", "indentFirst": 0, "lineSpacing": {"rule": "multiple", "value": 1.1}, "spaceAfter": 18, "keepNext": true, "hyphenate": false}, "letters": {"family": "Literata", "size": 14, "italic": true, "colour": "#5e564b"}}, "heading": {"name": "Headings", "parent": "body", "next": "body", "outline": null, "paragraph": {"align": "left", "indentFirst": 0, "lineSpacing": {"rule": "multiple", "value": 1.1}, "keepNext": true, "keepTogether": true, "hyphenate": false}, "letters": {"bold": true}}, "heading1": {"name": "Heading 1", "parent": "heading", "next": "body", "outline": 1, "paragraph": {"spaceBefore": 20, "spaceAfter": 6}, "letters": {"size": 18}}, "heading2": {"name": "Heading 2", "parent": "heading", "next": "body", "outline": 2, "paragraph": {"spaceBefore": 16, "spaceAfter": 4}, "letters": {"size": 14}}, "heading3": {"name": "Heading 3", "parent": "heading", "next": "body", "outline": 3, "paragraph": {"spaceBefore": 12, "spaceAfter": 2}, "letters": {"size": 12, "italic": true}}, "heading4": {"name": "Heading 4", "parent": "heading", "next": "body", "outline": 4, "paragraph": {"spaceBefore": 10, "spaceAfter": 2}, "letters": {"size": 12}}, "heading5": {"name": "Heading 5", "parent": "heading", "next": "body", "outline": 5, "paragraph": {"spaceBefore": 10, "spaceAfter": 2}, "letters": {"size": 11, "italic": true}}, "heading6": {"name": "Heading 6", "parent": "heading", "next": "body", "outline": 6, "paragraph": {"spaceBefore": 8, "spaceAfter": 2}, "letters": {"size": 11}}, "heading7": {"name": "Heading 7", "parent": "heading", "next": "body", "outline": 7, "paragraph": {"spaceBefore": 8, "spaceAfter": 2}, "letters": {"size": 11, "bold": false, "italic": true}}, "heading8": {"name": "Heading 8", "parent": "heading", "next": "body", "outline": 8, "paragraph": {"spaceBefore": 8, "spaceAfter": 2}, "letters": {"size": 10.5}}, "heading9": {"name": "Heading 9", "parent": "heading", "next": "body", "outline": 9, "paragraph": {"spaceBefore": 8, "spaceAfter": 2}, "letters": {"size": 10.5, "bold": false, "italic": true}}, "quotation": {"name": "Quotation", "parent": "body", "next": null, "outline": null, "paragraph": {"indentFirst": 0, "indentLeft": 28, "indentRight": 28, "spaceBefore": 4, "spaceAfter": 12}, "letters": {"italic": true}}, "list": {"name": "List", "parent": "body", "next": null, "outline": null, "paragraph": {"indentFirst": 0, "spaceAlike": false}, "letters": {}}, "caption": {"name": "Caption", "parent": "body", "next": "body", "outline": null, "paragraph": {"indentFirst": 0, "spaceBefore": 4, "spaceAfter": 12, "keepTogether": true}, "letters": {"size": 10, "italic": true, "colour": "#5e564b"}}, "reference": {"name": "Reference", "parent": "body", "next": null, "outline": null, "paragraph": {"indentLeft": 28, "indentFirst": -28, "spaceAfter": 6}, "letters": {}}, "emphasis": {"name": "Emphasis", "kind": "letters", "parent": null, "next": null, "outline": null, "paragraph": {}, "letters": {"italic": true}}, "strong": {"name": "Strong", "kind": "letters", "parent": null, "next": null, "outline": null, "paragraph": {}, "letters": {"bold": true}}, "smallPrint": {"name": "Small print", "kind": "letters", "parent": null, "next": null, "outline": null, "paragraph": {}, "letters": {"size": 9, "colour": "#5e564b"}}, "code": {"name": "Code", "kind": "letters", "parent": null, "next": null, "outline": null, "paragraph": {}, "letters": {"family": "Cousine", "size": 10.5}}}}, "setup": {"width": 595.2755905511812, "height": 841.8897637795277, "margins": {"top": 70.86614173228347, "right": 70.86614173228347, "bottom": 70.86614173228347, "left": 70.86614173228347}}, "properties": {"title": "", "author": ""}}, "content": [{"type": "body", "content": [{"type": "paragraph", "attrs": {"style": "body", "format": null, "letters": null}, "content": [{"type": "text", "text": "The chain"}]}]}]}'), ('broken', 0, '{"type":"doc"');
insert into steps values ('old', 0, 'a', '{"stepType": "replace", "from": 11, "to": 11, "slice": {"content": [{"type": "text", "text": "!"}]}}', 3);
pragma user_version = 2;

import { Text, View } from "react-native"
import { documentAttrs, inSet, lookSets, type LookSet } from "@biblon/core/document"
import { replaceSheet } from "@biblon/core/editing"
import { faceOf } from "@biblon/core/layout/catalogue"
import { useDesk, useSession } from "../../context"
import { trying } from "../../trying"
import { Press } from "../../../ui/bar"

function SetCard({ look, on }: { look: LookSet; on: boolean }) {
  const session = useSession()
  const { heading, text, title } = look
  return (
    <Press
      role="option"
      aria-selected={on}
      aria-label={look.name}
      {...trying(
        session,
        replaceSheet((sheet) => inSet(sheet, look), `Set ${look.name}`),
      )}
      className={`flex min-h-[72px] w-full items-stretch overflow-hidden rounded-button border p-0 text-left ${on ? "border-murex" : "border-line hover:border-ink-soft"}`}
    >
      <span className="w-2 shrink-0" style={{ background: heading.colour }} />
      <span className="flex min-w-0 flex-1 flex-col justify-center bg-white px-3 py-2">
        <span
          className="truncate text-[18px] leading-6"
          style={{ fontFamily: faceOf(title.family, title.bold, false), color: title.colour }}
        >
          {look.name}
        </span>
        <span
          className="truncate text-[13px] leading-5"
          style={{
            fontFamily: faceOf(heading.family, heading.bold, false),
            color: heading.colour,
            ...(heading.caps === "small"
              ? { fontVariantCaps: "small-caps" }
              : heading.caps === "all"
                ? { textTransform: "uppercase", fontSize: 11 }
                : {}),
          }}
        >
          The chain ferry
        </span>
        <span
          className="truncate text-[12px] leading-4"
          style={{ fontFamily: faceOf(text.family, false, false), color: text.colour }}
        >
          {text.family === heading.family ? text.family : `${text.family} with ${heading.family}`}
        </span>
      </span>
    </Press>
  )
}

/** Faces and colours for the whole document, tried on it before they are taken. */
export function SetsPage() {
  const session = useSession()
  const sheet = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).styles : null))
  const isOn = ({ text, heading }: LookSet) =>
    sheet !== null &&
    sheet.defaults.letters.family === text.family &&
    sheet.defaults.letters.colour === text.colour &&
    sheet.styles.heading1?.letters.family === heading.family &&
    sheet.styles.heading1.letters.colour === heading.colour
  return (
    <View>
      <Text className="my-3 font-ui text-[13px] leading-5 text-ink-soft">
        A set changes the faces and colours of all styles at once. Point at one to try it on the document.
      </Text>
      <div
        role="listbox"
        aria-label="Sets of faces and colours"
        className="flex flex-col gap-2"
        onPointerLeave={() => session.trial.show(null)}
      >
        {lookSets.map((look) => (
          <SetCard key={look.id} look={look} on={isOn(look)} />
        ))}
      </div>
    </View>
  )
}

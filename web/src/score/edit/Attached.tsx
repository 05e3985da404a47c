import { TextInput } from '@mantine/core'
import { useState, type Ref } from 'react'

/** A short text that belongs to a note: written with Enter, or by leaving the field. */
export function Attached({
  label,
  value,
  wide = false,
  field,
  onSet,
  onDone,
}: {
  label: string
  value: string
  wide?: boolean
  field?: Ref<HTMLInputElement>
  /** After Enter, whether there was something to write or not. */
  onDone?: () => void
  onSet: (text: string) => Promise<boolean>
}) {
  const [text, setText] = useState(value)
  const set = () => {
    if (text.trim() !== value) void onSet(text)
  }
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault()
        set()
        onDone?.()
      }}
    >
      <TextInput
        ref={field}
        size="xs"
        w={wide ? 230 : 130}
        aria-label={label}
        placeholder={label}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={set}
      />
    </form>
  )
}

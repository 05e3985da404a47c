import { TextInput } from '@mantine/core'
import { useState } from 'react'

/** A short text that belongs to a note: written with Enter, or by leaving the field. */
export function Attached({
  label,
  value,
  wide = false,
  onSet,
}: {
  label: string
  value: string
  wide?: boolean
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
      }}
    >
      <TextInput
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

import type { ENGLISH } from './english.ts'

type Catalogue = typeof ENGLISH
type Group = keyof Catalogue

/** Names between double braces in a text. */
type NamesIn<T> = T extends `${string}{{${infer Name}}}${infer Rest}` ? Name | NamesIn<Rest> : never
/** The texts of an entry: itself, or its parts. */
type TextsOf<Entry> = Entry extends string ? Entry : Entry[keyof Entry]
/** A key without the ending that goes by a count. */
type Plain<Key extends string> = Key extends `${infer Base}_one` | `${infer Base}_other` ? Base : Key
type KeyOf<G extends Group> = Plain<keyof Catalogue[G] & string>

/** What can be said, as `group.entry`; `MessageCode<'reading'>` for the codes of one group. */
export type MessageCode<G extends Group = Group> = { [K in G]: `${K}.${KeyOf<K>}` }[G]

type EntryOf<C> = C extends `${infer G}.${infer K}`
  ? G extends Group
    ? Catalogue[G][(K | `${K}_one` | `${K}_other`) & keyof Catalogue[G]]
    : never
  : never
type NamesOf<C> = NamesIn<TextsOf<EntryOf<C>>> | CountOf<C>
/** Entries in two numbers need a count even where their texts do not show it. */
type CountOf<C> = C extends `${infer G}.${infer K}`
  ? G extends Group
    ? `${K}_one` extends keyof Catalogue[G]
      ? 'count'
      : keyof EntryOf<C> extends string
        ? `what_one` extends keyof EntryOf<C>
          ? 'count'
          : never
        : never
    : never
  : never

/** The values of a message by the names that its text has for them. */
export type MessageValues<C extends MessageCode> = {
  readonly [Name in NamesOf<C>]: Name extends 'count' ? number : string | number
}

/** Something to be said, without its words: the catalogue of a language turns it into them. */
export interface Message<G extends Group = Group> {
  readonly code: MessageCode<G>
  readonly values: Readonly<Record<string, string | number>>
}

/**
 * A message with the values that its text asks for; one that is missing does not compile.
 * @example message('form.noCoda')
 * @example message('reading.noSuchFret', { fret: 64, first: 6, second: 4 })
 */
export function message<C extends MessageCode>(
  code: C,
  ...[values]: [NamesOf<C>] extends [never] ? [] : [MessageValues<C>]
): { readonly code: C; readonly values: Readonly<Record<string, string | number>> } {
  return { code, values: values ?? {} }
}

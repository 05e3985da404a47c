import { type Lock, type TuneDoc } from '@velvet-porch/core'
/** One lock of the command line, in words, as locks of a note's place and finger. */
export declare function lockFrom(text: string, tune: TuneDoc, id: string): Lock[]

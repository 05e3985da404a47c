import { v4 } from 'uuid'

/** An id that no other has. `crypto.randomUUID` is missing where the page comes over plain http under another name. */
export const newId = (): string => v4()

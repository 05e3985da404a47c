/** A stable identifier inside or across documents. */
export type Id = string

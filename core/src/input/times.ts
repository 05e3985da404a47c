const TIMES = /^[([]?(?:[x×](\d{1,2})|(\d{1,2})[x×])[)\]]?$/i

/** How often, where a word says it: "x4", "(2x)"; undefined for any other. */
export function timesOf(word: string): number | undefined {
  const found = TIMES.exec(word)
  return found ? Number(found[1] ?? found[2]) : undefined
}

/** How often, where a line says it: "x2", "(play 4 times)", "repeat 3x", "twice". */
export function timesInLine(line: string): number | undefined {
  const bare = line.trim().replace(/^[([|\s]+|[)\].:|\s]+$/g, '')
  const direct = timesOf(bare.replace(/\s+/g, ''))
  if (direct !== undefined) return direct
  const said =
    /^(?:play|repeat|repeated|loop)?\s*(?:this|that|it|all|these|bars?|section)?\s*(?:[x×]\s*)?(\d{1,2})\s*(?:times|[x×])\b/i.exec(
      bare,
    )
  const signed = /^(?:play|repeat|loop)\s*[x×]\s*(\d{1,2})$/i.exec(bare)
  if (said ?? signed) return Number((said ?? signed)?.[1])
  return /^(?:play|repeat)?\s*(?:it\s+)?twice$/i.test(bare) ? 2 : undefined
}

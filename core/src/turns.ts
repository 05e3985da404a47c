/**
 * Long work that gives its turn back: a generator that yields often enough for whoever runs it to show progress, hear a
 * cancel, or let the page live. It may be dropped at any yield.
 */
export type Turns<T> = Generator<unknown, T>

/** Runs such work to its end at once. */
export function finish<T>(run: Turns<T>): T {
  let item = run.next()
  while (!item.done) item = run.next()
  return item.value
}

/** Maps a list, giving the turn back after every so many items. */
export function* mapInTurns<T, U>(
  list: readonly T[],
  made: (item: T, index: number) => U,
  every = 256,
): Generator<undefined, U[]> {
  const all: U[] = []
  for (let i = 0; i < list.length; i++) {
    if (i > 0 && i % every === 0) yield
    all.push(made(list[i]!, i))
  }
  return all
}

/** Goes through a list, giving the turn back after every so many items. */
export function* eachInTurns<T>(
  list: readonly T[],
  visit: (item: T, index: number) => void,
  every = 1024,
): Generator<undefined, void> {
  for (let i = 0; i < list.length; i++) {
    if (i > 0 && i % every === 0) yield
    visit(list[i]!, i)
  }
}

/** Work whose share of a larger whole is not known: it yields the share that was done before it. */
export function* within<T>(share: number, run: Turns<T>): Generator<number, T> {
  for (let item = run.next(); ; item = run.next()) {
    if (item.done) return item.value
    yield share
  }
}

/** Work that is a part of a larger whole: the shares that it yields, as shares of that, between two. */
export function* scaled<T>(run: Generator<number, T>, from: number, to: number): Generator<number, T> {
  for (let item = run.next(); ; item = run.next()) {
    if (item.done) return item.value
    yield from + (to - from) * item.value
  }
}

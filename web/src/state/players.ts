import { DEFAULT_PLAYER, type Player } from '@velvet-porch/core/instrument'
import { db, type PlayerRow } from './db.ts'
import { usePrefs } from './prefs.ts'
import { storing } from './storageTrouble.ts'
import { useStored } from './useStored.ts'

const NOBODY: readonly PlayerRow[] = []

/** Every hand on record, by name. */
export function usePlayers(): readonly PlayerRow[] {
  return useStored(() => db.players.orderBy('name').toArray()) ?? NOBODY
}

/** The hand that the reference pages measure for. */
export function useCurrentPlayer(): Player {
  const { player } = usePrefs()
  const players = usePlayers()
  return playerOf(players.find((p) => p.id === player))
}

/** False until the hands have been read from storage. */
export const usePlayersReady = (): boolean => usePlayers() !== NOBODY

/** The hand itself, without its storage id. */
export function playerOf(row: PlayerRow | undefined): Player {
  if (!row) return DEFAULT_PLAYER
  const { id: _, ...player } = row
  return player
}

/** Stores a hand after its check against the schema. @throws SchemaError */
export async function savePlayer(row: PlayerRow): Promise<void> {
  const { readPlayer } = await import('@velvet-porch/core/schema')
  readPlayer(playerOf(row))
  await storing(() => db.players.put(row))
}

export const removePlayer = (id: string) => storing(() => db.players.delete(id))

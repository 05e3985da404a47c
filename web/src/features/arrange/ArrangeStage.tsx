import { present } from '@velvet-porch/core/invariant'
import { useParams } from 'react-router'
import { useTune } from '../../state/useTune.ts'
import { TuneGate } from '../../ui/TuneGate.tsx'
import { Bench } from './bench/Bench.tsx'

/** The bench: effort, sheet, standing neck and reasons of one arrangement. */
export function ArrangeStage() {
  const id = present(useParams().id)
  const opened = useTune(id)
  return <TuneGate opened={opened}>{() => <Bench key={id} id={id} />}</TuneGate>
}

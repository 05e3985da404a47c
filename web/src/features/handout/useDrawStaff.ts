import type { DrawStaff } from '@velvet-porch/core/output/handout'
import { useQuery } from '@tanstack/react-query'

/** What draws staves on the pages, once its font is there; the notation library comes only where a staff is asked for. */
export function useDrawStaff(wanted: boolean): DrawStaff | undefined {
  const { data } = useQuery({
    queryKey: ['staff on paper'],
    queryFn: async () => (await import('../../score/sheet/staffOnPaper.ts')).staffOnPaper(),
    enabled: wanted,
    networkMode: 'always',
    staleTime: Infinity,
    structuralSharing: false,
  })
  return wanted ? data : undefined
}

import { Button, Group, Stack, Text, TextInput, Title } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { IconSearch } from '@tabler/icons-react'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { searchArchive } from './archive.ts'

/** The tune archive of the server. Where the server is gone it says so, and all else works. */
export function Archive({ onTake }: { onTake: (abc: string) => void }) {
  const { t } = useTranslation()
  const [query, setQuery] = useState('')
  const [asked] = useDebouncedValue(query, 250)
  const found = useQuery({
    queryKey: ['archive', asked],
    queryFn: ({ signal }) => searchArchive(asked, signal),
    placeholderData: keepPreviousData,
    meta: { shownHere: true },
  })
  return (
    <section aria-labelledby="archive-title" style={{ marginTop: 44 }}>
      <Group justify="space-between" align="end" mb="xs">
        <div>
          <Title order={2} id="archive-title" size="h3">
            {t('shelf.archive')}
          </Title>
          <Text size="sm" c="dimmed">
            {t('shelf.archiveHint')}
          </Text>
        </div>
        <TextInput
          aria-label={`${t('shelf.search')}: ${t('shelf.archive')}`}
          placeholder={t('shelf.search')}
          leftSection={<IconSearch size={16} />}
          value={query}
          onChange={(e) => setQuery(e.currentTarget.value)}
        />
      </Group>
      {found.isError ? (
        <Group role="status">
          <Text>{t('shelf.archiveGone')}</Text>
          <Button size="compact-sm" variant="default" onClick={() => void found.refetch()}>
            {t('shelf.tryAgain')}
          </Button>
        </Group>
      ) : null}
      {found.data?.length === 0 ? <Text>{t('shelf.archiveNone')}</Text> : null}
      <Stack gap={2}>
        {(found.isError ? [] : (found.data ?? [])).map((tune) => (
          <Group
            key={tune.title}
            justify="space-between"
            wrap="nowrap"
            py={4}
            style={{ borderBottom: '1px solid color-mix(in srgb, var(--rule) 50%, transparent)' }}
          >
            <div>
              <Text span fw={600} ff="'Fraunces Variable', serif">
                {tune.title}
              </Text>{' '}
              <Text span size="sm" c="dimmed">
                {tune.composer} · {tune.note}
              </Text>
            </div>
            <Button
              size="compact-sm"
              variant="subtle"
              style={{ flexShrink: 0 }}
              aria-label={t('shelf.takeTitle', { title: tune.title })}
              onClick={() => onTake(tune.abc)}
            >
              {t('shelf.take')}
            </Button>
          </Group>
        ))}
      </Stack>
    </section>
  )
}

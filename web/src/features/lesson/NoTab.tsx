import { Button, Text, Title } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import lessonCss from './lesson.module.css'

/** A stage that needs a tab, where there is none yet: says so and leads to the bench. */
export function NoTab({ tuneId, text }: { tuneId: string; text: string }) {
  const { t } = useTranslation()
  return (
    <div className={lessonCss['teach-nothing']}>
      <Title order={1}>{text}</Title>
      <Text my="md">
        <Button component={Link} to={`/tunes/${tuneId}/arrange`}>
          {t('teach.toArrange')}
        </Button>
      </Text>
    </div>
  )
}

import { useMutation } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { familyOf } from '../../common/ladders'
import { usePracticeId } from '../../common/route'
import { FileButton, fileContent } from '../../common/ui/FileButton'
import { useAddVariation } from './queries'

/** A variation of the practice's own from a file. */
export function ImportVariation() {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const navigate = useNavigate()
  const add = useAddVariation()
  const bringIn = useMutation({
    mutationFn: async (file: File) =>
      add.mutateAsync({
        params: { path: { practice_id: practiceId } },
        body: await fileContent(file, t('library.notAFile')),
      }),
    onSuccess: ({ id }) => void navigate(`/practices/${practiceId}/library/${familyOf(id)}?rung=${id}`),
  })
  return <FileButton label={t('library.fromFile')} bringIn={bringIn} />
}

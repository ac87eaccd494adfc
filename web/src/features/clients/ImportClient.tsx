import { useMutation } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { query } from '../../api/client'
import { usePracticeId } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { FileButton, fileContent } from '../../common/ui/FileButton'
import { useClientsChanged } from './queries'

/** A new client from a client file. */
export function ImportClient() {
  const { t } = useTranslation()
  const practice_id = usePracticeId()
  const navigate = useNavigate()
  const changed = useClientsChanged()
  const store = query.useMutation('post', '/api/practices/{practice_id}/clients/import')
  const bringIn = useMutation({
    mutationFn: async (file: File) =>
      store.mutateAsync({
        params: { path: { practice_id } },
        body: await fileContent(file, t('clients.notAFile')),
      }),
    onSuccess: (client) => {
      changed()
      void navigate(addressOf(screenById('limits'), practice_id, client.id))
    },
  })
  return <FileButton label={t('clients.fromFile')} bringIn={bringIn} />
}

import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../../api/client'
import { clientAddress, usePracticeId } from '../../common/route'
import { FileButton, fileContent } from '../../common/ui/FileButton'

/** A new client from a client file. */
export function ImportClient() {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const bringIn = useMutation({
    mutationFn: async (file: File) =>
      unwrap(
        api.POST('/api/practices/{practice_id}/clients/import', {
          params: { path: { practice_id: practiceId } },
          body: await fileContent(file, t('clients.notAFile')),
        }),
      ),
    onSuccess: (client) => {
      void queries.invalidateQueries({ queryKey: ['clients', practiceId] })
      void navigate(clientAddress(practiceId, client.id, 'limits'))
    },
  })
  return <FileButton label={t('clients.fromFile')} bringIn={bringIn} />
}

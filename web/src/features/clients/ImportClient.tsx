import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type ChangeEvent, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { api, ApiProblem, unwrap } from '../../api/client'
import { clientAddress, usePracticeId } from '../../common/route'

/** A new client from a client file. A problem names its place in the file; then nothing was stored. */
export function ImportClient() {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const picker = useRef<HTMLInputElement>(null)
  const bringIn = useMutation({
    mutationFn: async (file: File) => {
      let content: Record<string, never>
      try {
        content = JSON.parse(await file.text()) as Record<string, never>
      } catch {
        throw new Error(t('clients.notAFile'))
      }
      return unwrap(
        api.POST('/api/practices/{practice_id}/clients/import', {
          params: { path: { practice_id: practiceId } },
          body: content,
        }),
      )
    },
    onSuccess: (client) => {
      void queries.invalidateQueries({ queryKey: ['clients', practiceId] })
      void navigate(clientAddress(practiceId, client.id, 'limits'))
    },
  })
  const pick = (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0]
    // The same file may be picked again after it was corrected.
    event.target.value = ''
    if (file !== undefined) bringIn.mutate(file)
  }
  const fields = bringIn.error instanceof ApiProblem ? (bringIn.error.problem.fields ?? []) : []
  return (
    <>
      <input
        ref={picker}
        type="file"
        accept="application/json,.json"
        hidden
        aria-label={t('clients.fromFile')}
        onChange={pick}
      />
      <Button variant="outlined" disabled={bringIn.isPending} onClick={() => picker.current?.click()}>
        {t('clients.fromFile')}
      </Button>
      {bringIn.isError && (
        <Alert
          severity="error"
          variant="outlined"
          onClose={() => {
            bringIn.reset()
          }}
          sx={{ position: 'fixed', bottom: 24, right: 24, maxWidth: 520, bgcolor: 'background.paper' }}
        >
          <strong>{t('clients.notBroughtIn')}</strong>{' '}
          {fields[0] === undefined ? bringIn.error.message : `${fields[0].field}: ${fields[0].message}`}
        </Alert>
      )}
    </>
  )
}

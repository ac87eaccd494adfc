import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import { type UseMutationResult } from '@tanstack/react-query'
import { type ChangeEvent, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem } from '../../api/client'

export type FileContent = Record<string, unknown>

interface Props {
  label: string
  bringIn: Pick<
    UseMutationResult<unknown, Error, File>,
    'mutate' | 'isPending' | 'isError' | 'error' | 'reset'
  >
}

/** The content of a file somebody picked; what is no JSON object is refused in words. */
export async function fileContent(file: File, notAFile: string): Promise<FileContent> {
  let content: unknown
  try {
    content = JSON.parse(await file.text())
  } catch {
    throw new Error(notAFile)
  }
  if (typeof content !== 'object' || content === null || Array.isArray(content)) throw new Error(notAFile)
  return content as FileContent
}

/** Brings a file in. A problem names its place in the file; then nothing was stored. */
export function FileButton({ label, bringIn }: Props) {
  const { t } = useTranslation()
  const picker = useRef<HTMLInputElement>(null)
  const pick = (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0]
    // The same file may be picked again after it was corrected.
    event.target.value = ''
    if (file !== undefined) bringIn.mutate(file)
  }
  const fields = bringIn.error instanceof ApiProblem ? bringIn.error.problem.fields : []
  return (
    <>
      <input
        ref={picker}
        type="file"
        accept="application/json,.json"
        hidden
        aria-label={label}
        onChange={pick}
      />
      <Button variant="outlined" disabled={bringIn.isPending} onClick={() => picker.current?.click()}>
        {label}
      </Button>
      {bringIn.isError && (
        <Alert
          severity="error"
          onClose={() => {
            bringIn.reset()
          }}
          sx={{
            position: 'fixed',
            bottom: 24,
            right: 24,
            maxWidth: 520,
            bgcolor: 'background.paper',
            zIndex: 2,
          }}
        >
          <strong>{t('common.notBroughtIn')}</strong>{' '}
          {fields[0] === undefined ? bringIn.error?.message : `${fields[0].field}: ${fields[0].message}`}
        </Alert>
      )}
    </>
  )
}

import { useTranslation } from 'react-i18next'
import { Navigate } from 'react-router'
import { useMe } from '../../common/session'
import { Empty, Failure, Working } from '../../common/ui/States'
import { SignInPage } from './SignInScreen'

/** The front door: to the first practice of whoever is signed in, or to the sign-in. */
export function Home() {
  const { t } = useTranslation()
  const me = useMe()
  if (me.isPending) return <Working />
  if (me.isError) return <Failure error={me.error} again={() => void me.refetch()} />
  if (!me.data.signed_in) return <SignInPage />
  const practice = me.data.practices[0]
  if (practice === undefined) return <Empty title={t('signIn.noPractice')} />
  return <Navigate to={`/practices/${practice.id}/today`} replace />
}

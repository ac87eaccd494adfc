import type { Schemas } from '../../api/client'

type Verdict = Schemas['Verdict']

/** A verdict as a shape: open ring, ring on a bar, an eye, ring with a gap and a dot, hatched square. */
export function VerdictMark({ verdict, size = 16 }: { verdict: Verdict; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 16 16"
      aria-hidden
      focusable="false"
      style={{ flex: 'none' }}
    >
      <VerdictShape verdict={verdict} />
    </svg>
  )
}

/** The same without its frame, of 16 × 16, to stand in a drawing. */
export function VerdictShape({ verdict }: { verdict: Verdict }) {
  return (
    <>
      {verdict === 'clear' && (
        <circle cx="8" cy="8" r="5.2" fill="none" stroke="currentColor" strokeWidth="2.2" />
      )}
      {verdict === 'with_setup' && (
        <>
          <circle cx="8" cy="6.6" r="4.4" fill="none" stroke="currentColor" strokeWidth="2.1" />
          <path d="M2 14h12" stroke="currentColor" strokeWidth="2.2" />
        </>
      )}
      {verdict === 'with_eye' && (
        <>
          <path
            d="M1 8Q8 1.2 15 8Q8 14.8 1 8Z"
            fill="none"
            stroke="currentColor"
            strokeWidth="1.9"
            strokeLinejoin="round"
          />
          <circle cx="8" cy="8" r="2.3" fill="currentColor" />
        </>
      )}
      {verdict === 'check_first' && (
        <>
          <path d="M11.9 4.6A5.2 5.2 0 1 0 12.9 10" fill="none" stroke="currentColor" strokeWidth="2.1" />
          <circle cx="13.4" cy="6.6" r="1.3" fill="currentColor" />
        </>
      )}
      {verdict === 'leave_out' && (
        <>
          <rect x="2.5" y="2.5" width="11" height="11" fill="none" stroke="currentColor" strokeWidth="1.4" />
          <path d="M3 9 9 3M3 13 13 3M7 13l6-6M11 13l2-2" stroke="currentColor" strokeWidth="1.1" />
        </>
      )}
    </>
  )
}

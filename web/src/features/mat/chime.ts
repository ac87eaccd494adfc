let context: AudioContext | null = null

/** A soft tone, made here: a hold has reached its dose. Silent where a device makes no sound. */
export function chime(): void {
  if (typeof AudioContext === 'undefined') return
  context ??= new AudioContext()
  const { currentTime: now, destination } = context
  for (const [pitch, loud] of [
    [440, 0.09],
    [660, 0.05],
  ] as const) {
    const tone = context.createOscillator()
    const volume = context.createGain()
    tone.frequency.value = pitch
    volume.gain.setValueAtTime(0, now)
    volume.gain.linearRampToValueAtTime(loud, now + 0.08)
    volume.gain.exponentialRampToValueAtTime(0.0001, now + 1.6)
    tone.connect(volume).connect(destination)
    tone.start(now)
    tone.stop(now + 1.7)
  }
}

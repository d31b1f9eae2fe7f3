export const PRIME_WORDS = {
  prime: 'Priming',
  restart: 'Restart after a power cut',
  leak: 'Leak watch',
  air: 'Draws air',
  rattle: 'Rattle',
} as const

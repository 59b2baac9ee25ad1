/** Numbers that look random and come again from the same seed: xorshift with multiplied output (Marsaglia; Vigna). */
export interface Random {
  /** 0 up to 1. */
  next(): number;
  /** Normally distributed about 0, standard deviation 1. Source: Box and Muller. */
  normal(): number;
}

export function randomFrom(seed: number): Random {
  let state = (seed ^ 0x9e3779b9) >>> 0 || 1;
  const next = () => {
    state ^= state << 13;
    state >>>= 0;
    state ^= state >>> 17;
    state ^= state << 5;
    state >>>= 0;
    return (Math.imul(state, 0x2c1b3c6d) >>> 0) / 2 ** 32;
  };
  for (let i = 0; i < 8; i++) next();
  return {
    next,
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
  };
}

/** A seed from words: the same words, the same seed. Source: FNV-1a. */
export function seedOf(words: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < words.length; i++) hash = Math.imul(hash ^ words.charCodeAt(i), 0x01000193) >>> 0;
  return hash;
}

/** The five fixed subjects with fixed seeds on which every look is shown: round mass, straight edges, dense texture, fine limbs, flat mark. */
export const YARDSTICK = [
  { name: 'radish', label: 'Radish', seed: 11 },
  { name: 'greenhouse', label: 'Greenhouse', seed: 4 },
  { name: 'artichoke', label: 'Artichoke', seed: 7 },
  { name: 'honeybee', label: 'Honeybee', seed: 3 },
  { name: 'mark', label: 'The mark', seed: 1 },
] as const;

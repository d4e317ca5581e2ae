import type { Role } from '@zinc/contract';

/** The made-up people of the demo house. Their passwords are printed at the start; they open nothing but demo data. */
export const DEMO_PEOPLE: { name: string; email: string; role: Role; password: string }[] = [
  { name: 'Ines Okafor-Lindqvist', email: 'ines@marrow-vane.example', role: 'lead', password: 'furrow-and-frost' },
  { name: 'Tomasz Bielak', email: 'tomasz@marrow-vane.example', role: 'designer', password: 'furrow-and-frost' },
  { name: 'Ruta Vance', email: 'ruta@marrow-vane.example', role: 'designer', password: 'furrow-and-frost' },
  { name: 'Odile Prentiss', email: 'odile@marrow-vane.example', role: 'reviewer', password: 'furrow-and-frost' },
];

/** Ten subjects: eight that the house press draws, two that need a picture or another wording. */
export const DEMO_SUBJECTS = `Radish; radish, freshly pulled
Globe artichoke; globe artichoke
Sunflower; sunflower
Honeybee; honeybee
Watering can; watering can
Greenhouse; small greenhouse
Beetroot; beetroot
The mark; the co-operative's mark
Rocket; salad rocket leaves
Tandem bicycle; tandem bicycle`;

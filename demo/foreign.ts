import type { FOREIGN_NAMES } from './names';

/** A book in another language: romanised where the script is not Latin, with the original for 880. */
export interface ForeignBook {
  readonly language: keyof typeof FOREIGN_NAMES;
  readonly country: string;
  readonly title: string;
  readonly skip: number;
  readonly original?: string;
  readonly romanName?: string;
  readonly script?: string;
  readonly topic: number;
  readonly place: string;
  readonly publisher: string;
}

export const FOREIGN: readonly ForeignBook[] = [
  { language: 'fre', country: 'fr ', title: 'La vannerie de plein air', skip: 3, topic: 0, place: 'Vernay', publisher: 'Éditions du Saule' },
  { language: 'fre', country: 'fr ', title: "L'osier et ses métiers", skip: 2, topic: 19, place: 'Vernay', publisher: 'Éditions du Saule' },
  { language: 'fre', country: 'fr ', title: 'Toits de chaume en pays de marais', skip: 0, topic: 1, place: 'Saint-Orlan', publisher: 'Presses du Marais' },
  { language: 'fre', country: 'fr ', title: 'Les murs en pierre sèche', skip: 4, topic: 9, place: 'Saint-Orlan', publisher: 'Presses du Marais' },
  { language: 'fre', country: 'fr ', title: 'Carnet d’une teinturière', skip: 0, topic: 4, place: 'Vernay', publisher: 'Éditions du Saule' },
  { language: 'ger', country: 'gw ', title: 'Die Weide am Bach', skip: 4, topic: 19, place: 'Altenried', publisher: 'Korb & Rute' },
  { language: 'ger', country: 'gw ', title: 'Flechten für Anfänger', skip: 0, topic: 0, place: 'Altenried', publisher: 'Korb & Rute' },
  { language: 'ger', country: 'gw ', title: 'Das Strohdach', skip: 4, topic: 1, place: 'Altenried', publisher: 'Korb & Rute' },
  { language: 'ger', country: 'gw ', title: 'Färberpflanzen im Bauerngarten', skip: 0, topic: 4, place: 'Mühlhof', publisher: 'Verlag Grünspan' },
  { language: 'ger', country: 'gw ', title: 'Bienenkörbe und ihre Geschichte', skip: 0, topic: 8, place: 'Mühlhof', publisher: 'Verlag Grünspan' },
  { language: 'wel', country: 'wlk', title: 'Y cwrwgl a’r afon', skip: 2, topic: 7, place: 'Caerdydd', publisher: 'Gwasg yr Helyg' },
  { language: 'wel', country: 'wlk', title: 'Gwrychoedd ein tadau', skip: 0, topic: 2, place: 'Caerdydd', publisher: 'Gwasg yr Helyg' },
  { language: 'wel', country: 'wlk', title: 'Y fasged wellt', skip: 2, topic: 0, place: 'Caerdydd', publisher: 'Gwasg yr Helyg' },
  { language: 'dan', country: 'dk ', title: 'Pileflet på landet', skip: 0, topic: 0, place: 'Lyngby Enge', publisher: 'Forlaget Siv' },
  { language: 'dan', country: 'dk ', title: 'Stråtag og tækkemænd', skip: 0, topic: 1, place: 'Lyngby Enge', publisher: 'Forlaget Siv' },
  { language: 'dut', country: 'ne ', title: 'Het griend in de winter', skip: 4, topic: 19, place: 'Rietdam', publisher: 'De Wilgenpers' },
  { language: 'dut', country: 'ne ', title: 'De mandenmaker van Rietdam', skip: 3, topic: 0, place: 'Rietdam', publisher: 'De Wilgenpers' },
  { language: 'spa', country: 'sp ', title: 'El mimbre y la caña', skip: 3, topic: 0, place: 'Villaseca', publisher: 'Ediciones Retama' },
  { language: 'spa', country: 'sp ', title: 'Tintes de monte', skip: 0, topic: 4, place: 'Villaseca', publisher: 'Ediciones Retama' },
  { language: 'pol', country: 'pl ', title: 'Wiklina nad Błotną', skip: 0, topic: 19, place: 'Wierzbno', publisher: 'Oficyna Łoza' },
  { language: 'pol', country: 'pl ', title: 'Strzecha i słoma', skip: 0, topic: 1, place: 'Wierzbno', publisher: 'Oficyna Łoza' },
  { language: 'rus', country: 'ru ', title: 'Pletenie iz ivovogo pruta', original: 'Плетение из ивового прута', romanName: 'Lozinskiĭ, Prokhor', script: '(N', skip: 0, topic: 0, place: 'Ivnoe', publisher: 'Rodnoe remeslo' },
  { language: 'rus', country: 'ru ', title: 'Derevenskie krasiteli', original: 'Деревенские красители', romanName: 'Korzinkina, Agrafena', script: '(N', skip: 0, topic: 4, place: 'Ivnoe', publisher: 'Rodnoe remeslo' },
  { language: 'gre', country: 'gr ', title: 'Kalathia tou nēsiou', original: 'Καλάθια του νησιού', romanName: 'Kalathas, Stephanos', script: '(S', skip: 0, topic: 0, place: 'Lygaria', publisher: 'Lygos' },
  { language: 'heb', country: 'is ', title: 'Ḳeliʻah be-ḳaneh', original: 'קליעה בקנה', romanName: 'Ḳelaʻi, Miryam', script: '(2', skip: 0, topic: 0, place: 'Neṿeh Suf', publisher: 'Suf' },
];

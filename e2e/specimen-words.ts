// What the photos of the specimen say, in three languages, one of them from right to left.

const TITLES = [
  'Red teapot',
  'Tall vase',
  'Plate on slate',
  'Bay at dusk',
  'Six cups',
  'Hands at the wheel',
  'Kiln',
];

/** What the photos say in a language: titles, an alt text and a caption around each, and the name of an arrangement. */
interface Spoken {
  titles: readonly string[];
  alt: (title: string) => string;
  caption: (title: string) => string;
  named: (kind: string) => string;
}
const ENGLISH: Spoken = {
  titles: TITLES,
  alt: (title) => `${title}, seen from the window.`,
  caption: (title) => `${title}, from the autumn firing`,
  named: (kind) => `The ${kind} of the pottery`,
};
const SPOKEN: Record<string, Spoken> = {
  en: ENGLISH,
  de: {
    titles: [
      'Rote Teekanne',
      'Hohe Vase',
      'Teller auf Schiefer',
      'Bucht in der Abenddämmerung',
      'Sechs Tassen',
      'Hände an der Töpferscheibe',
      'Ofen',
    ],
    alt: (title) => `${title}, vom Fenster aus gesehen.`,
    caption: (title) => `${title}, aus dem Herbstbrand der Töpfereigenossenschaft`,
    named: (kind) => `Töpfereibilderzusammenstellung ${kind}`,
  },
  // A stand-in: right to left, with letters that join.
  ar: {
    titles: [
      'إبريق أحمر',
      'مزهرية طويلة',
      'صحن على حجر',
      'خليج عند الغسق',
      'ستة أكواب',
      'يدان على الدولاب',
      'فرن',
    ],
    alt: (title) => `${title} كما يُرى من النافذة.`,
    caption: (title) => `${title} من حريق الخريف`,
    named: (kind) => `صور الفخار ${kind}`,
  },
};
export const spokenIn = (language: string): Spoken => SPOKEN[language] ?? ENGLISH;

// What a photo can be there for, as the W3C's alt decision tree asks for it; each answer is one key.
import type { Role } from '@dusky-otter/core/contract';

export interface RoleAnswer {
  role: Role;
  /** As it is said of a photo: "informs". */
  name: string;
  /** As an answer to "What is it here for?". */
  answer: string;
  /** What the alt text is to hold then. */
  ask: string;
}

export const ROLES: readonly RoleAnswer[] = [
  {
    role: 'informative',
    name: 'informs',
    answer: 'It shows something that the text beside it doesn’t say',
    ask: 'What would someone miss without this picture?',
  },
  {
    role: 'decorative',
    name: 'decorates',
    answer: 'It is there for looks: nothing would be missed',
    ask: 'Not read aloud',
  },
  {
    role: 'functional',
    name: 'links',
    answer: 'It is a link or a button',
    ask: 'Where does it lead, or what does it do?',
  },
  {
    role: 'text',
    name: 'shows text',
    answer: 'It shows words that people need',
    ask: 'Which words does it show?',
  },
  {
    role: 'complex',
    name: 'is complex',
    answer: 'It is a chart, map or plan: more than a sentence',
    ask: 'What is it, and what does it come to? The rest goes into the long description.',
  },
];

export const roleOf = (role: Role | null): RoleAnswer | null =>
  ROLES.find((one) => one.role === role) ?? null;

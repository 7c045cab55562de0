// What the checks are called: by these codes findings are kept, and their names and sentences found.

export type WordCheckCode =
  | 'missing'
  | 'file-name'
  | 'placeholder'
  | 'holds-markup'
  | 'holds-address'
  | 'file-data'
  | 'says-click'
  | 'other-language'
  | 'opens-with-image'
  | 'same-alt'
  | 'repeats-nearby'
  | 'too-long'
  | 'keyword-list'
  | 'all-capitals'
  | 'decorative-with-alt'
  | 'describes-look'
  | 'no-role'
  | 'hardly-says'
  | 'only-look'
  | 'text-not-carried';

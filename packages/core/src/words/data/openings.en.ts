// English: openings that a screen reader has said already by announcing an image. Lower case.

/** What the picture may be called. A painting, a map or a screenshot is not here: that it is one, tells something. */
export const PICTURE_NOUNS = [
  'image',
  'picture',
  'photo',
  'photograph',
  'pic',
  'pict',
  'snap',
  'snapshot',
  'shot',
  'graphic',
  'icon',
  'img',
];

/** What may stand between the article and the noun without telling more. */
export const IDLE_ADJECTIVES = [
  'amazing',
  'banner',
  'beautiful',
  'close-up',
  'closeup',
  'color',
  'colour',
  'cover',
  'detailed',
  'digital',
  'featured',
  'fine',
  'good',
  'great',
  'header',
  'hero',
  'high-resolution',
  'large',
  'lovely',
  'main',
  'nice',
  'product',
  'small',
  'stock',
  'stunning',
  'thumbnail',
  'wonderful',
];

export const DETERMINERS = ['a', 'an', 'the', 'this', 'our', 'my', 'another', 'one'];

/** What leads from the noun to what is seen. */
export const LEADS = [
  'of',
  'showing',
  'shows',
  'that shows',
  'which shows',
  'depicting',
  'depicts',
  'displaying',
  'featuring',
  'features',
  'illustrating',
  'with a view of',
  'contains',
];

/** Openings that need no noun and lead of the list above. */
export const FIXED_OPENINGS = [
  'here we see',
  'here we can see',
  'here you see',
  'here you can see',
  'in this image',
  'in this photo',
  'in this photograph',
  'in this picture',
  'in the image',
  'in the photo',
  'in the photograph',
  'in the picture',
  'pictured here is',
  'pictured here are',
  'pictured here',
  'pictured is',
  'pictured',
  'seen here is',
  'seen here are',
  'shown here is',
  'shown here are',
];

// A stored file as it goes out: with the photo's words inside where the policy wants that, and under a name of its own.
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Photo, PlanContext, RowVariant } from '../contract/index.ts';
import { wordsIn } from '../plan/plan.ts';
import { takesPacket, wordsPacket } from '../words/packet.ts';
import { variantFileName } from './naming.ts';

type Context = Pick<PlanContext, 'policy' | 'languages' | 'slots'>;

/** What a file of a photo carries of its words in that place, as XMP; "" for nothing. A credit may be the original's. */
export function packetIn(
  photo: Pick<Photo, 'words' | 'placements' | 'original'>,
  { slot, format }: Pick<RowVariant, 'slot' | 'format'>,
  { policy, languages }: Context,
): string {
  if (!takesPacket(format)) return '';
  const words = wordsIn(photo, slot);
  const credit = words.credit.trim() || photo.original.found.credit;
  return wordsPacket({ ...words, credit }, policy, languages[0] ?? 'en');
}

/** Other words inside make another file: its fingerprint says so. Without words it is the picture's own. */
const fingerprint = (contentHash: string, packet: string): string =>
  packet === '' ? contentHash : bytesToHex(sha256(utf8ToBytes(`${contentHash}\n${packet}`)));

/** @param speaking the photo's part of the name; see `speakingNames` */
export const deliveredName = (
  photo: Parameters<typeof packetIn>[0],
  speaking: string,
  variant: Pick<RowVariant, 'slot' | 'width' | 'shape' | 'format'> & { contentHash: string },
  context: Context,
): string =>
  variantFileName(
    speaking,
    variant.slot,
    { ...variant, contentHash: fingerprint(variant.contentHash, packetIn(photo, variant, context)) },
    context.policy.naming,
    context.slots,
  );

// Alt texts written by trade and kind before the rules were touched: good ones that must be left alone, and faulty ones
// with the one name under which each must be found.
import type { Role } from '../contract/index.ts';
import type { WordCheckCode } from './checks/finding.ts';
import { findingsOf, type LabelledAlt } from './score.ts';

/** One line of a list: the text with where it comes from. */
export interface TradeText extends LabelledAlt {
  trade: string;
}

/**
 * Reads a list: tab-separated, its first line names the columns (trade, kind or code, role, file, alt).
 * @param language of all its texts
 */
export function readTradeList(text: string, language: string): TradeText[] {
  const [head, ...lines] = text.split('\n').filter((line) => line !== '');
  const columns = head!.split('\t');
  return lines.map((line) => {
    const cells = line.split('\t');
    const said = (name: string): string => cells[columns.indexOf(name)] ?? '';
    return {
      trade: said('trade'),
      alt: said('alt'),
      language,
      ...(said('role') && { role: said('role') as Role }),
      ...(said('file') && { file: said('file') }),
      ...(said('code') && { codes: [said('code') as WordCheckCode] }),
    };
  });
}

export interface TradeScore {
  texts: number;
  /** Good ones without a finding, or faulty ones found under their name ÷ all. */
  right: number;
  /** The others, with what was found. */
  wrong: string[];
}

/** How the checks do on a list: of good texts they leave alone, of faulty ones they find under the right name. */
export function tradeScoreOf(texts: readonly TradeText[]): TradeScore {
  const findings = findingsOf(texts);
  const isRight = texts.map(({ codes }, i) =>
    codes ? codes.every((code) => findings[i]!.includes(code)) : findings[i]!.length === 0,
  );
  return {
    texts: texts.length,
    right: isRight.filter(Boolean).length / texts.length,
    wrong: texts.flatMap(({ alt, codes }, i) =>
      isRight[i] ? [] : [`${codes?.join() ?? 'good'} → ${findings[i]!.join() || 'nothing'}: ${alt}`],
    ),
  };
}

// Text spaced out as WCAG 1.4.12 says, and the window zoomed to 200 %: no text is cut off, and every action can be reached.
import type { Page } from '@playwright/test';
import { expect, test } from './application.ts';

/** WCAG 2.2, success criterion 1.4.12. */
const SPACED = `* { line-height: 1.5 !important; letter-spacing: .12em !important; word-spacing: .16em !important; }
  p { margin-bottom: 2em !important; }`;

/** Controls that can't be brought into view, are covered, or whose text is cut off without saying so. */
const lostOn = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const lost: string[] = [];
    const controls = document.querySelectorAll<HTMLElement>(
      'button, a[href], input, textarea, select, summary',
    );
    for (const control of controls) {
      if (control.closest('[inert], [aria-hidden="true"]') || control.matches(':disabled')) continue;
      const name = (control.getAttribute('aria-label') ?? control.textContent).trim().slice(0, 60);
      const style = getComputedStyle(control);
      if (style.visibility === 'hidden' || style.pointerEvents === 'none' || control.offsetParent === null)
        continue;
      // A box for eyes stands in the place of one for hands.
      const shown = control.matches('.sr-only') ? (control.closest('label') ?? control) : control;
      if (shown.matches('.sr-only')) continue;
      shown.scrollIntoView({ block: 'center', inline: 'center', behavior: 'instant' });
      const { left, top, width, height } = shown.getBoundingClientRect();
      const at = document.elementFromPoint(left + width / 2, top + height / 2);
      const reached =
        at !== null && (shown.contains(at) || at.contains(shown) || at.closest('label')?.contains(shown));
      if (!reached) lost.push(`${name}: not reached, there is ${at?.tagName} ${at?.className}`);
      const cut =
        control.matches('button, a') && style.overflow !== 'visible' && style.textOverflow !== 'ellipsis';
      if (cut && control.scrollWidth > control.clientWidth + 1) lost.push(`${name}: cut off`);
    }
    return lost;
  });

for (const [name, viewport, spaced] of [
  ['with its text spaced out', { width: 1280, height: 800 }, true],
  ['zoomed to 200 %', { width: 640, height: 400 }, false],
  ['zoomed to 200 %, spaced out', { width: 640, height: 400 }, true],
] as const) {
  test(`nothing is lost ${name}`, async ({ page, server, setId }) => {
    await page.setViewportSize(viewport);
    const { rows } = await server.state(setId);
    const ids = [rows.find(({ words }) => words.role === null)!.id, rows.at(-1)!.id];
    for (const path of [...ids.map((id) => `describe/${id}`), 'describe', 'reading', 'gather', 'hand-over']) {
      await page.goto(`${server.address}/sets/${setId}/${path}`);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await expect(
        page
          .getByText('14 photos')
          .or(page.getByText(/^\d+ of 14/))
          .first(),
      ).toBeAttached();
      if (spaced) await page.addStyleTag({ content: SPACED });
      expect(await lostOn(page), path).toEqual([]);
      const wide = await page.evaluate(() => document.documentElement.scrollWidth);
      expect(wide, path).toBeLessThanOrEqual(viewport.width);
    }
  });
}

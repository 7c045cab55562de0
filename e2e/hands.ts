// What tests do with a page as a reader's hands would, and what they watch meanwhile.
import type { Page } from '@playwright/test';

/** Addresses of pictures that are asked for, as they are. */
export function asked(page: Page): string[] {
  const list: string[] = [];
  page.on('request', (request) => {
    if (request.url().includes('/photos/')) list.push(request.url());
  });
  return list;
}

/** A finger that goes sideways over an element. */
export async function swipe(page: Page, selector: string, by: number): Promise<void> {
  const { x, y, width, height } = (await page.locator(selector).first().boundingBox())!;
  const client = await page.context().newCDPSession(page);
  const at = (left: number) => [{ x: x + width / 2 + left, y: y + height / 2 }];
  await client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(-by / 2) });
  for (const part of [-0.25, 0, 0.25, 0.5])
    await client.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: at(part * by) });
  await client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
}

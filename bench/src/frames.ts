// The browser's own frame times.
import type { Page } from '@playwright/test';

/** Milliseconds between the browser's frames while something is done. */
export async function framesDuring(page: Page, act: () => Promise<void>): Promise<number[]> {
  await page.evaluate(() => {
    const times: number[] = [];
    let last = performance.now();
    const state = window as unknown as { frames: number[]; counting: boolean };
    state.frames = times;
    state.counting = true;
    const frame = (now: number) => {
      times.push(now - last);
      last = now;
      if (state.counting) requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });
  await act();
  const frames = await page.evaluate(() => {
    const state = window as unknown as { frames: number[]; counting: boolean };
    state.counting = false;
    return state.frames;
  });
  return frames.slice(2);
}

// The frame bench: straightening, turns, guides, numbers; and frames of many photos at once.
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { axeFindings, drop, expect, rowOf, saved, test } from './application.ts';

const angleOf = (page: Page) => page.getByRole('spinbutton', { name: 'Angle in degrees' });

async function openBench(page: Page, address: string, setId: number, file: string): Promise<void> {
  await page.goto(`${address}/sets/${setId}/frame`);
  await rowOf(page, file)
    .getByRole('button', { name: `Open ${file}` })
    .click();
  await expect(page.locator('[data-stage]')).toBeVisible();
}

test('a picture is straightened by number, by a line that is drawn, and turned; undo takes each back', async ({
  page,
  server,
  setId,
}) => {
  await openBench(page, server.address, setId, 'GM_0412.JPG');
  await angleOf(page).fill('4.5');
  // It is saved once the keys have rested: drawn before that, the line would be the same edit.
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute(
    'title',
    /straightened to \+4\.5°/,
  );
  await saved(page);
  await page.getByRole('button', { name: 'Draw along a line' }).click();
  const stage = (await page.locator('[data-stage]').boundingBox())!;
  // A line that falls by 1 in 10 to the right: 5.7° are taken off.
  await page.mouse.move(stage.x + 60, stage.y + 80);
  await page.mouse.down();
  await page.mouse.move(stage.x + 260, stage.y + 100, { steps: 4 });
  await page.mouse.up();
  await expect(angleOf(page)).toHaveValue('-1.2');
  await page.getByRole('button', { name: 'Quarter turn' }).click();
  await page.getByRole('button', { name: 'Mirror', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Mirror', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await expect(angleOf(page)).toHaveValue('1.2');
  await saved(page);
  for (const value of ['-1.2', '-1.2', '4.5', '0']) {
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(angleOf(page)).toHaveValue(value);
  }
});

test('a proposal from the picture’s own edges is taken, and one that stands straight gets none', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/frame`);
  await expect(page.locator('[data-row]').first()).toBeVisible();
  for (const [name, tilt] of [
    ['leaning.png', 4],
    ['level.png', 0],
  ] as const) {
    const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="800"><g transform="rotate(${tilt} 600 400)">
      <rect x="-300" y="-300" width="1800" height="780" fill="#c9d6df"/><rect x="-300" y="480" width="1800" height="800" fill="#4c5b3f"/></g></svg>`;
    await drop(page, [
      { name, type: 'image/png', bytes: await sharp(Buffer.from(drawing)).png().toBuffer() },
    ]);
    // It stands behind the others, where the table is not drawn.
    const found = async () => {
      const answer = await page.request.get(`${server.address}/api/sets/${setId}/found?words=${name}`);
      return ((await answer.json()) as { id: number }[])[0]?.id;
    };
    await expect.poll(found).toBeDefined();
    await page.goto(`${server.address}/sets/${setId}/frame/${await found()}`);
    const said = page.getByText(/^Its edges say -4\.0°/);
    if (tilt === 4) {
      await expect(said).toBeVisible();
      await page.getByRole('button', { name: 'Take it' }).click();
      await expect(angleOf(page)).toHaveValue('-4');
    }
    await expect(page.locator('[data-tilt]')).toHaveAttribute('data-tilt', tilt === 4 ? 'found' : 'none');
    await expect(page.getByText(/^Its edges say/)).toHaveCount(0);
    await saved(page);
    await page.getByRole('link', { name: 'Back to the table' }).click();
  }
});

test('a click sets the focal point, arrows move it by 1 % and 5 %, numbers are typed', async ({
  page,
  server,
  setId,
}) => {
  await openBench(page, server.address, setId, 'GM_0418.JPG');
  await page.getByRole('button', { name: 'All shapes' }).click();
  const stage = (await page.locator('[data-stage]').boundingBox())!;
  await page.mouse.click(stage.x + stage.width * 0.25, stage.y + stage.height * 0.4);
  const dot = page.getByRole('button', { name: /^Focal point, / });
  await expect(dot).toHaveAccessibleName(/25 % from the left, 40 % from the top/);
  await expect(page.getByText('Focal point confirmed')).toBeVisible();
  await saved(page);
  await dot.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(dot).toHaveAccessibleName(/26 % from the left, 45 % from the top/);
  await saved(page);
  await page.getByRole('textbox', { name: 'Focal %' }).fill('80');
  await page.keyboard.press('Enter');
  await expect(dot).toHaveAccessibleName(/80 % from the left/);
  await page.getByRole('button', { name: /1:1$/ }).first().click();
  await page.getByRole('textbox', { name: 'Crop width px' }).fill('600');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-crop="1:1"]')).toHaveAccessibleName(/600 × 600 px/);
  await page.getByRole('textbox', { name: 'from left' }).fill('99999');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^The crop reaches outside the picture/)).toBeVisible();
  await saved(page);
});

test('guides: thirds, and room for a headline that says where the subject stands in the way', async ({
  page,
  server,
  setId,
}) => {
  await openBench(page, server.address, setId, 'GM_0418.JPG');
  await page.getByRole('button', { name: /1:1$/ }).first().click();
  await page.getByRole('button', { name: 'Thirds' }).click();
  await page.getByRole('combobox', { name: 'Room for a headline' }).selectOption('left');
  await expect(page.getByText('Room for a headline', { exact: true })).toBeVisible();
  await page.getByRole('combobox', { name: 'Room for a headline' }).selectOption('right');
  await expect(page.getByText('▲ The subject stands here')).toBeVisible();
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 844 });
    expect(await axeFindings(page), `${width}`).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
});

test('frames of many at once: a copied frame, a turn, a rule; a click on a crop opens it', async ({
  page,
  server,
  setId,
}) => {
  await openBench(page, server.address, setId, 'GM_0412.JPG');
  await angleOf(page).fill('-3');
  await saved(page);
  await page.getByRole('button', { name: 'Copy frame' }).click();
  await page.getByRole('link', { name: 'Back to the table' }).click();
  for (const file of ['GM_0418.JPG', 'DSC00307.JPG']) await rowOf(page, file).getByRole('checkbox').check();
  const menu = page.getByRole('button', { name: 'Frame', exact: true });
  await menu.click();
  await page.getByRole('menuitem', { name: /^Lay on the copied frame/ }).click();
  await saved(page);
  await menu.click();
  await page.getByRole('menuitem', { name: /^Focal point in the upper third/ }).click();
  await saved(page);
  await expect(rowOf(page, 'GM_0418.JPG')).toContainText('50 % · 33 %');
  await rowOf(page, 'DSC00307.JPG')
    .getByRole('link', { name: /^Open the crop 1:1/ })
    .click();
  await expect(page.locator('[data-crop="1:1"]')).toBeVisible();
  await expect(angleOf(page)).toHaveValue('-3');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(angleOf(page)).toHaveValue('0');
});

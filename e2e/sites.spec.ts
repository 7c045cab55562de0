// The start screen: sites and sets made, renamed, put away and brought back; what is left at each stop.
import type { Page } from '@playwright/test';
import { axeFindings, expect, test } from './application.ts';

const siteOf = (page: Page, name: string) =>
  page.locator('[data-site]').filter({ has: page.getByRole('heading', { name, exact: true }) });

test.beforeEach(async ({ page, server, setId }) => {
  expect(setId).toBeGreaterThan(0);
  await page.goto(`${server.address}/`);
  await expect(page.getByRole('link', { name: 'Kiln diary, autumn firing' }).first()).toBeVisible();
});

test('a site is made, renamed, put away and brought back', async ({ page }) => {
  await page.getByRole('button', { name: 'Make a site' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Sallowick Rowing Club');
  await page.getByRole('button', { name: 'Make it' }).click();
  const site = siteOf(page, 'Sallowick Rowing Club');
  await expect(site).toContainText('No set yet.');
  await page.getByRole('button', { name: 'Rename Sallowick Rowing Club' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Sallowick Boats');
  await page.getByRole('dialog').getByRole('button', { name: 'Rename' }).click();
  await expect(siteOf(page, 'Sallowick Boats')).toBeVisible();
  await page.getByRole('button', { name: 'Put away Sallowick Boats' }).click();
  await expect(siteOf(page, 'Sallowick Boats')).toHaveCount(0);
  await page.reload();
  await page.getByRole('button', { name: 'Bring back Sallowick Boats' }).click();
  await expect(siteOf(page, 'Sallowick Boats')).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
});

test('a set shows what is left at each stop and goes there; renamed and put away it comes back', async ({
  page,
  server,
  setId,
}) => {
  // Each test has a site of its own with one set: the last one made is this test's.
  const site = siteOf(page, 'Gullmoor Pottery').last();
  await expect(site).toContainText('Frame: partly done 4 left');
  await expect(site).toContainText('Describe: partly done 5 left');
  await expect(site).toContainText(/today, \d\d:\d\d/);
  await site.getByRole('button', { name: 'Rename Kiln diary, autumn firing' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Kiln diary, winter');
  await page.getByRole('dialog').getByRole('button', { name: 'Rename' }).click();
  await expect(site.getByRole('link', { name: 'Kiln diary, winter' })).toBeVisible();
  await site.getByRole('button', { name: 'Put away Kiln diary, winter' }).click();
  await expect(site).toContainText('1 set put away');
  await site.getByRole('button', { name: 'Show them' }).click();
  await site.getByRole('button', { name: 'Bring back Kiln diary, winter' }).click();
  await site.getByRole('link', { name: 'Look at 4 crops' }).click();
  await expect(page).toHaveURL(`${server.address}/sets/${setId}/frame`);
  // What the start screen did can be taken back in the set.
  await expect(page.getByText('Kiln diary, winter')).toBeVisible();
});

import { expect, figure, openApp, stage, test } from './fixture';

test('a variance is explained in two parts, the outlook follows from them and becomes a draft; one undo takes each back', async ({
  page,
}) => {
  await openApp(page);
  await stage(page, 'Variance');
  await page.getByRole('button', { name: 'Winter storage', exact: true }).first().click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  const way = panel.getByRole('region', { name: 'Way to the outlook' });
  await expect(way).toContainText('Outlook62,284');

  // 983 under: 300 of it comes back in December, the rest goes on to April.
  await panel.getByRole('button', { name: '+ Timing' }).click();
  await panel.getByLabel('Explains').fill('-300');
  await page.keyboard.press('Enter');
  await expect(panel).toContainText(/683\s+is unexplained|683.* is unexplained/);
  await panel.getByRole('button', { name: 'Say when it comes back' }).click();
  await panel.getByLabel('Comes back in').selectOption({ label: 'in Dec 2026' });
  await expect(way).toContainText('Comes back or goes on');
  await expect(way).toContainText('Outlook62,584');
  await panel.getByRole('button', { name: '+ Lasting' }).click();
  const second = panel.getByRole('group', { name: 'Part 2' });
  await second.getByLabel('A month').fill('-100');
  await page.keyboard.press('Enter');
  await second.getByLabel('Until').selectOption({ label: 'Apr 2027' });
  await expect(panel).toContainText('All of it is explained');
  await expect(way).toContainText('Outlook61,984');
  await expect(figure(page, 'Winter storage', 12)).toHaveText('61,984');

  // More than there is, is said; what is typed is kept.
  await panel.getByRole('group', { name: 'Part 1' }).getByLabel('Explains').fill('-2000');
  await page.keyboard.press('Enter');
  await expect(panel.getByRole('alert')).toContainText('explain more than the difference');
  await page.keyboard.press('Control+z');
  await expect(panel).toContainText('All of it is explained');

  await page.getByRole('button', { name: 'Outlook as a draft' }).click();
  await stage(page, 'Budget');
  const draft = page.getByRole('row', { name: /Winter storage/ });
  await expect(draft).toContainText('61,984');
});

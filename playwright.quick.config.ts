import base from './playwright.config.ts';
export default { ...base, timeout: 200_000, expect: { timeout: 25_000 }, use: { ...base.use, actionTimeout: 15_000 }, reporter: [['list']], outputDir: '/tmp/pwq-results' };

// Sets the theme before the first paint, so that nobody in the dusk is blinded by the day.
(() => {
  const kept = localStorage.getItem('theme');
  const dusk = kept ? kept === 'dusk' : matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.theme = dusk ? 'dusk' : 'day';
})();

// Before the first paint: the look that was chosen, or the device's own.
(function () {
  var kept = null;
  try {
    kept = localStorage.getItem('wobble-theme');
  } catch {
    // storage may be closed to us; the device's own theme then
  }
  var dark = kept ? kept === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  var glare = kept ? kept === 'glare' : !dark && matchMedia('(prefers-contrast: more)').matches;
  document.documentElement.setAttribute('theme', dark ? 'g100' : 'white');
  document.documentElement.setAttribute('look', glare ? 'glare' : dark ? 'dark' : 'light');
})();

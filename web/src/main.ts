import { mount } from 'svelte';
import 'carbon-components-svelte/css/all.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import './look/tokens.css';
import './look/base.css';
import './look/print.css';
import App from './App.svelte';

const target = document.getElementById('app');
if (!target) throw new Error('index.html has no #app');
mount(App, { target });

// a part of the page that a newer version has no more: the page itself is fetched anew, what was typed is kept. Where that
// has just been tried, or cannot be, the page says so and leaves it to the user
const FETCHED_ANEW = 'wobble-fetched-anew';
const NOT_AGAIN_MS = 60_000;
addEventListener('vite:preloadError', (event) => {
  const last = Number(sessionStorage.getItem(FETCHED_ANEW) ?? 0);
  if (!navigator.onLine || Date.now() - last < NOT_AGAIN_MS) return;
  sessionStorage.setItem(FETCHED_ANEW, String(Date.now()));
  event.preventDefault();
  location.reload();
});

// the page then opens without a connection; where the browser has no such thing, it needs one
if ('serviceWorker' in navigator && import.meta.env.PROD) {
  addEventListener('load', () => void navigator.serviceWorker.register('/sw.js').catch(() => undefined));
}

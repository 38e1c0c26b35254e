/*
 * Keeps the program at hand: opened once it opens without a network. What is
 * asked of the server itself goes past it, so that an entry is sent or not
 * sent and nothing in between; the person's own page has a worker of its own.
 */
const PAST = /^\/(api|p|healthz|readyz|metrics)(\/|$)/;
/** So long a page is waited for before the one that is kept is shown. */
const LATE_MS = 8000;
const AWAY = [502, 503, 504];

self.addEventListener('fetch', (event) => {
  if (PAST.test(new URL(event.request.url).pathname)) event.stopImmediatePropagation();
});

const ask = self.fetch.bind(self);

/** A page that does not come, or comes from whoever stands before a server that is away, is no page: then the one that is kept is shown. */
self.fetch = async (request, init) => {
  if (!(request instanceof Request) || request.mode !== 'navigate') return ask(request, init);
  const late = new Promise((_, refuse) => setTimeout(() => refuse(new Error('the page does not come')), LATE_MS));
  const answer = await Promise.race([ask(request, init), late]);
  if (AWAY.includes(answer.status)) throw new Error('the server is away');
  return answer;
};

importScripts('/ngsw-worker.js');

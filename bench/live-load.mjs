import { setTimeout as wait } from 'node:timers/promises';
import WebSocket from 'ws';

/** In a process of its own: so many phones that speak, and the screens that hear them, each pair over one visit. */
process.once('message', async ({ pairs, rate, seconds }) => {
  const took = [];
  let sent = 0;
  let heard = 0;
  const open = async (url, cookie, hello) => {
    const socket = new WebSocket(`${url.replace('http', 'ws')}/api/live`, { headers: { cookie: cookie ?? '', origin: url } });
    await new Promise((resolve, reject) => socket.once('open', resolve).once('error', reject));
    socket.send(JSON.stringify(hello));
    return socket;
  };
  const screens = [];
  const phones = [];
  for (const { visit, key, cookie, screenAt, phoneAt } of pairs) {
    const screen = await open(screenAt, cookie, { as: 'bench', visit });
    screen.on('message', (data) => {
      const said = JSON.parse(data);
      if (said.k !== 'from' || said.said.k !== 'shows') return;
      heard += 1;
      took.push(performance.now() - said.said.shows.t * 1000);
    });
    screens.push(screen);
    phones.push(await open(phoneAt, '', { as: 'phone', key }));
  }
  await wait(1_500);
  process.send('open');
  const shows = { degrees: 47, held: 47, peak: 47, outOfPlane: 3, still: 1, way: 1, lost: false, zero: 'start', zeroedAt: 'left knee' };
  const end = performance.now() + seconds * 1000;
  // Spread over the time between two samples, as phones are that know nothing of each other.
  const timers = phones.map((phone, n) =>
    setTimeout(
      () => {
        const timer = setInterval(() => {
          if (performance.now() > end) return clearInterval(timer);
          sent += 1;
          phone.send(JSON.stringify({ k: 'shows', shows: { ...shows, t: performance.now() / 1000 } }));
        }, 1000 / rate);
      },
      (n * 1000) / rate / phones.length,
    ),
  );
  await wait(seconds * 1000 + 1_500);
  for (const timer of timers) clearTimeout(timer);
  const own = process.cpuUsage();
  for (const socket of [...screens, ...phones]) socket.terminate();
  process.send({ sent, heard, took, own: (own.user + own.system) / 1e6 }, () => process.exit());
});

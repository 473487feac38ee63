import { beforeEach, expect, test, vi } from 'vitest';
import type { Play } from './api/client';

const heard = new Map<string, (play: Play | null) => void>();
vi.mock('@microsoft/signalr', () => ({
  HubConnectionState: { Disconnected: 'Disconnected' },
  LogLevel: { None: 0 },
  HubConnectionBuilder: class {
    withUrl = () => this;
    withAutomaticReconnect = () => this;
    configureLogging = () => this;
    build = () => ({
      state: 'Connected',
      on: (name: string, listener: (play: Play | null) => void) => heard.set(name, listener),
      onreconnecting: () => {},
      onreconnected: () => {},
      onclose: () => {}
    });
  }
}));
type Answer = { response: { ok: boolean }; data: Play | null };
const nothing = async (): Promise<Answer> => ({ response: { ok: true }, data: null });
let playAsked = nothing;
let workAsked = nothing;
vi.mock('./api/client', () => ({
  api: { GET: (path: string) => (path === '/api/play' ? playAsked() : nothing()), POST: () => workAsked() },
  orThrow: (answer: { data: unknown }) => answer.data
}));

const { live } = await import('./live.svelte');
const play = (trialId: number, running: boolean) => ({ trialId, running, runId: null, teeth: '' }) as unknown as Play;

const asBeforeAnyPlay = () => void ([live.play, live.answered] = [null, null]);

beforeEach(async () => {
  playAsked = nothing;
  await live.connect();
  heard.get('play')!(play(1, false));
  live.ended = 0;
});

test('a play that is over before the server answers that it was asked is over', () => {
  heard.get('play')!(play(2, true));
  heard.get('play')!(play(2, false));
  live.asked(play(2, true));

  expect(live.play?.running).toBe(false);
  expect(live.ended).toBe(1);
});

test('a play of which nothing was heard but its end has ended', () => {
  heard.get('play')!(play(2, false));
  live.asked(play(2, true));

  expect(live.play?.running).toBe(false);
  expect(live.ended).toBe(1);
});

test('the first play of all can be over before anything was heard of it, and is answered all the same', () => {
  asBeforeAnyPlay();
  heard.get('play')!(play(2, false));
  live.asked(play(2, true));

  expect(live.answered?.trialId).toBe(2);
  expect(live.play!.running).toBe(false);
  expect(live.ended).toBe(1);
});

test('a play that was asked runs until its end is heard', () => {
  live.asked(play(2, true));
  expect(live.play?.running).toBe(true);
  heard.get('play')!(play(2, false));

  expect(live.ended).toBe(1);
});

test('an end that is heard while the page still reads what plays is not undone by the older answer', async () => {
  heard.get('play')!(play(2, true));
  let answer = (_: Answer) => {};
  playAsked = () => new Promise((then) => (answer = then));
  const connecting = live.connect();
  heard.get('play')!(play(2, false));
  answer({ response: { ok: true }, data: play(2, true) });
  await connecting;

  expect(live.play?.running).toBe(false);
});

test('a page that read before the connection began reads again once it has', async () => {
  await live.connect();

  expect(live.ended).toBe(1);
});

test('work in the background that is over before the server answers that it was asked for is over', async () => {
  const work = (running: boolean) => ({ running, done: 1 }) as unknown as Play;
  let answer = (_: Answer) => {};
  workAsked = () => new Promise((then) => (answer = then));
  const asking = live.make(['a clip']);
  heard.get('making')!(work(false));
  answer({ response: { ok: true }, data: work(true) });
  await asking;
  expect(live.making?.running).toBe(false);

  const asked = live.render('a timeline');
  answer({ response: { ok: true }, data: work(true) });
  await asked;
  expect(live.aids?.running).toBe(true);
});

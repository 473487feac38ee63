import { HubConnectionBuilder, HubConnectionState, LogLevel } from '@microsoft/signalr';
import { api, orThrow, type Making, type Play, type Schemas } from './api/client';

/** The hub's own messages; the API's document does not cover them. */
type LoadNow = { group: string; name: string; unit: string; value: number };
type News = { runId: number; from: number; teeth: string; asked: number; lastLagMs: number | null; loads: LoadNow[] };

const made = (making: Making | null) => [making?.done, making?.running].join();

/** Longer from try to try, ten seconds at most. */
export const pauseBefore = (tried: number) => Math.min(10_000, 500 * 2 ** Math.min(tried, 10));

/** What is running now, kept up to date by the server. */
class Live {
  play = $state<Play | null>(null);
  loads = $state<LoadNow[]>([]);
  picture = $state<string | null>(null);
  making = $state<Making | null>(null);
  aids = $state<Making | null>(null);
  /** The measuring of this machine. */
  calibrating = $state<Making | null>(null);
  /** Runs that are judged again after an update. */
  judging = $state<Schemas['JudgingView'] | null>(null);
  /** Changes when another clip is made, or the making ends; its progress is sent several times a second. */
  clipsMade = $derived(made(this.making));
  /** The same of proxies and renders. */
  aidsMade = $derived(made(this.aids));
  /** How long the newest requested picture took. */
  lastLagMs = $state<number | null>(null);
  /** The trial that has just ended before this page's eyes, until another begins. */
  answered = $state<Play | null>(null);
  /** Counts changes of what has been played, so that pages know when to read again. */
  ended = $state(0);
  /** Counts marks that were added or removed here. */
  marked = $state(0);
  connected = $state(true);
  /** What the server has told since it was last asked for everything: it is newer than the answers still on their way. */
  #heard = new Set<string>();

  async connect() {
    // It goes on trying for as long as the page is open: a server that is started again is found again.
    const reconnect = { nextRetryDelayInMilliseconds: ({ previousRetryCount }: { previousRetryCount: number }) => pauseBefore(previousRetryCount) };
    const hub = new HubConnectionBuilder().withUrl('/live').withAutomaticReconnect(reconnect).configureLogging(LogLevel.None).build();
    const hear = <T>(name: string, then: (told: T) => void) =>
      hub.on(name, (told: T) => {
        this.#heard.add(name);
        then(told);
      });
    hear('play', (play: Play | null) => this.#playChanged(play));
    hub.on('news', (news: News) => this.#newsCame(news));
    hub.on('picture', (picture: { jpeg: string }) => (this.picture = `data:image/jpeg;base64,${picture.jpeg}`));
    hear('making', (making: Making) => (this.making = making));
    hear('aids', (aids: Making) => (this.aids = aids));
    hear('calibrating', (calibrating: Making) => (this.calibrating = calibrating));
    hear('judging', (judging: Schemas['JudgingView']) => (this.judging = judging));
    hub.on('runsChanged', () => this.ended++);
    hub.onreconnecting(() => (this.connected = false));
    hub.onreconnected(() => void start());
    const start = async () => {
      for (let tried = 0; ; tried++) {
        try {
          if (hub.state === HubConnectionState.Disconnected) await hub.start();
          return await this.#readAnew();
        } catch {
          this.connected = false;
          await new Promise((then) => setTimeout(then, pauseBefore(tried)));
        }
      }
    };
    hub.onclose(() => void start());
    await start();
  }

  /** Reads what is running, after a connection has begun. */
  async #readAnew() {
    this.#heard.clear();
    const [play, making, aids, calibration, judging] = await Promise.all([
      api.GET('/api/play'), api.GET('/api/clips/making'), api.GET('/api/rendering'), api.GET('/api/calibration'), api.GET('/api/judging')
    ]);
    this.connected = play.response.ok && making.response.ok;
    if (!this.#heard.has('play')) this.#playChanged(play.data ?? null);
    if (!this.#heard.has('making')) this.making = making.data ?? null;
    if (!this.#heard.has('aids')) this.aids = aids.data ?? null;
    if (!this.#heard.has('calibrating')) this.calibrating = calibration.data?.now ?? null;
    if (!this.#heard.has('judging')) this.judging = judging.data ?? null;
    // What ended before the connection began was not heard, and pages have read before it.
    this.ended++;
  }

  /** Creates clips, after what was asked for before. */
  make = (ids: string[]) => this.#begin('making', api.POST('/api/clips/making', { body: { ids } }));

  /** Renders the passages of a timeline, after what was asked for before.
   * @throws {Refused} The timeline cannot be played. */
  render = (id: string) => this.#begin('aids', api.POST('/api/timelines/{id}/renders', { params: { path: { id } } }));

  /** Begins to calibrate this machine, unless a calibration is in progress. */
  calibrate = () => this.#begin('calibrating', api.POST('/api/calibration'));

  /** Asks for work in the background. By the time of the answer it may be over: what was heard of it meanwhile is newer. */
  async #begin(kind: 'making' | 'aids' | 'calibrating', request: Promise<Parameters<typeof orThrow<Making>>[0]>) {
    this.#heard.delete(kind);
    const now = orThrow(await request);
    if (!this.#heard.has(kind)) this[kind] = now;
  }

  /** What the server answered when something was asked to play. By then it may be over: what was heard of it meanwhile is newer. */
  asked(play: Play) {
    if (!this.play || this.play.trialId < play.trialId) this.#playChanged(play);
    else if (this.play.trialId === play.trialId && !this.play.running && this.answered?.trialId !== play.trialId) {
      this.answered = this.play;
      this.ended++;
    }
  }

  #playChanged(play: Play | null) {
    const was = this.play;
    this.play = play;
    // Each run of a trial ends with the next one's beginning.
    if (was?.runId && play?.running && was.runId !== play.runId) this.ended++;
    if (play?.running) this.answered = null;
    else {
      this.loads = [];
      this.picture = null;
      this.lastLagMs = null;
      // A short one can be over before anything was heard of its beginning.
      if (was?.running || (was && play && was.trialId !== play.trialId)) {
        this.answered = play ?? was;
        this.ended++;
      }
    }
  }

  #newsCame(news: News) {
    if (!this.play || this.play.runId !== news.runId) return;
    // A page that opened late has read some of these already.
    const fresh = news.teeth.slice(Math.max(0, this.play.teeth.length - news.from));
    const teeth = this.play.teeth + (news.teeth.length ? fresh : '');
    this.play = { ...this.play, teeth, frames: this.play.byHand ? this.play.frames + news.asked : teeth.length };
    this.lastLagMs = news.lastLagMs ?? this.lastLagMs;
    if (news.loads.length) this.loads = news.loads;
  }
}

export const live = new Live();

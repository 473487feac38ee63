import { expect, test } from 'vitest';
import { Latest, type Known } from './latest';

const ok = new Response(null, { status: 200 });
const settled = () => new Promise((then) => setTimeout(then));

/** A question whose answers are given by hand. */
function asked() {
  const given: { answer: (text: string) => void; fail: (failure: Error) => void; signal: AbortSignal }[] = [];
  const question = (signal: AbortSignal) =>
    new Promise<{ data: string; response: Response }>((then, fail) => given.push({ answer: (data) => then({ data, response: ok }), fail, signal }));
  return { given, question };
}

function heard() {
  const known: Known<string> = { value: null, problem: null, asking: false };
  return { known, latest: new Latest<string>((news) => Object.assign(known, news)) };
}

test('a new question ends the one before it, and an answer to that says nothing more', async () => {
  const [{ known, latest }, first, second] = [heard(), asked(), asked()];
  latest.ask(first.question);
  latest.ask(second.question);
  expect(first.given[0].signal.aborted).toBe(true);
  second.given[0].answer('new');
  first.given[0].answer('old');
  await settled();
  expect(known).toEqual({ value: 'new', problem: null, asking: false });
});

test('with nothing to ask any more, nothing is waited for', async () => {
  const [{ known, latest }, { given, question }] = [heard(), asked()];
  latest.ask(question);
  expect(known.asking).toBe(true);
  latest.ask(null);
  expect(known.asking).toBe(false);
  given[0].answer('late');
  await settled();
  expect(known).toEqual({ value: null, problem: null, asking: false });
});

test('asked a hundred times before an answer comes, it sends one more request, and passes on each answer', async () => {
  const [{ known, latest }, { given, question }] = [heard(), asked()];
  latest.ask(question);
  for (let n = 0; n < 100; n++) latest.askAgain();
  expect(given).toHaveLength(1);
  given[0].answer('one');
  await settled();
  expect(known.value).toBe('one');
  expect(given).toHaveLength(2);
  given[1].answer('two');
  await settled();
  expect(known).toEqual({ value: 'two', problem: null, asking: false });
  expect(given).toHaveLength(2);
});

test('a server that does not answer differs from one that refuses, and what was known stays', async () => {
  const [{ known, latest }, { given, question }] = [heard(), asked()];
  latest.ask(question);
  given[0].answer('one');
  await settled();
  latest.askAgain();
  given[1].fail(new TypeError('Failed to fetch'));
  await settled();
  expect(known).toEqual({ value: 'one', problem: 'The server does not answer.', asking: false });
  latest.ask(async () => ({ error: { detail: 'There is no such run.' }, response: new Response(null, { status: 404 }) }));
  await settled();
  expect(known.problem).toBe('There is no such run.');
});

test('nothing to ask asks nothing', async () => {
  const { known, latest } = heard();
  latest.ask(null);
  latest.askAgain();
  await settled();
  expect(known.asking).toBe(false);
});

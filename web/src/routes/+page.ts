import { redirect } from '@sveltejs/kit';
import { api } from '#lib/api/client.ts';

/** Straight to the first sheet; the others are one step away. */
export const load = async () => {
  const timelines = (await api.GET('/api/timelines')).data ?? [];
  redirect(307, timelines.length ? `/timelines/${timelines[0].id}` : '/timelines');
};

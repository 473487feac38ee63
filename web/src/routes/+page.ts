import { redirect } from '@sveltejs/kit';
import { api } from '#lib/api/client.ts';

/** Straight to the sheet while there is only one. */
export const load = async () => {
  const timelines = (await api.GET('/api/timelines')).data ?? [];
  redirect(307, timelines.length === 1 ? `/timelines/${timelines[0].id}` : '/timelines');
};

import { redirect } from '@sveltejs/kit';

/** The former address of the editor. */
export const load = ({ params, url }: { params: { id: string }; url: URL }) => redirect(308, `/timelines/${params.id}/passages${url.search}`);

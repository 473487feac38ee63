import { redirect } from '@sveltejs/kit';

/** The former address of the glossary. */
export const load = () => redirect(308, '/glossary');

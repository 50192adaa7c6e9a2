import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { topicHere } from './here';
import { metFrom } from './house-words';
import { namesIn, topicOf, topics, topicsFor } from './topics';

/** All that stands on screens of the desk, as its sources have it. */
function sources(folder: string): string {
	return readdirSync(folder)
		.map((name) => join(folder, name))
		.filter((path) => !path.includes('/help'))
		.map((path) => (statSync(path).isDirectory() ? sources(path) : /\.(svelte|ts)$/.test(path) && !/\.test\.ts$/.test(path) ? readFileSync(path, 'utf8') : ''))
		.join('\n');
}
const screens = [
	...['src/lib/ui', 'src/routes/desk'].map(sources),
	readFileSync('core/placing/placement.ts', 'utf8'),
	readFileSync('core/access/reach.ts', 'utf8'),
	readFileSync('core/placing/patterns.ts', 'utf8')
]
	.join('\n')
	.replace(/\s+/g, ' ');
const texts = topics.flatMap((topic) => [topic.lead, ...topic.steps, ...(topic.notes ?? [])].map((text) => [topic.slug, text] as const));

describe('words that were met', () => {
	it('are those of the house that a cookie names; whatever else it holds keeps nobody out', () => {
		expect(metFrom('Door.Dead end')).toEqual(['Door', 'Dead end']);
		expect(metFrom(undefined)).toEqual([]);
		expect(metFrom('%zz.Door..<b>')).toEqual(['Door']);
	});
});

describe('the handbook', () => {
	it('calls everything by the name that it has on the screen', () => {
		const names = texts.flatMap(([slug, text]) => namesIn(text).flatMap((part) => (part.name ? [`${slug}: ${part.text}`] : [])));
		expect(names.length).toBeGreaterThan(40);
		// a name stands between tags, in quotes, or before what is counted
		const stands = (name: string) => new RegExp(`[>'"\`} ] ?${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')} ?[<'"\`{?]`).test(screens);
		expect(names.filter((line) => !stands(line.slice(line.indexOf(': ') + 2)))).toEqual([]);
	});
	it('leads from a topic only to topics and screens that there are', () => {
		for (const topic of topics) {
			for (const slug of topic.beside ?? []) expect(topicOf(slug), `${topic.slug} → ${slug}`).toBeDefined();
			expect(statSync(`src/routes${topic.at}`).isDirectory(), topic.at).toBe(true);
		}
		expect(new Set(topics.map((topic) => topic.slug)).size).toBe(topics.length);
	});
	it('is found by other words for a thing, those topics first that are called so', () => {
		expect(topicsFor('upload').map((topic) => topic.slug)).toEqual(['bring-in']);
		expect(topicsFor('embed code')[0]?.slug).toBe('other-websites');
		expect(topicsFor('')).toHaveLength(topics.length);
		expect(topicsFor('zeppelin')).toEqual([]);
	});
	it('opens where one is', () => {
		expect(topicHere('/desk/people/knocks')?.slug).toBe('knocks');
		expect(topicHere('/desk/documents/rules-for-fishing')?.slug).toBe('door');
		expect(topicHere('/desk/settings')).toBeUndefined();
		for (const path of [
			'/desk/people/keys',
			'/desk/people/knocks',
			'/desk/people',
			'/desk/pages/x',
			'/desk/pages',
			'/desk/readership',
			'/desk/upkeep',
			'/desk/try',
			'/desk/documents/x',
			'/desk/documents'
		]) {
			const here = topicHere(path);
			expect(here && topicOf(here.slug)?.title, path).toBe(here?.title);
			expect(here, path).toBeDefined();
		}
	});
});

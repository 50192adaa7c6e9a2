<!-- What the check read out of the file. -->
<script lang="ts">
	import { counted } from '#core/text/list';
	import type { Facts } from '#core/intake/condition';
	import { paperWords } from '#core/intake/paper';
	import { dayText } from '$lib/ui/parts/when';
	import { languageWords } from './words';

	let { facts, fileName, sha256, zone, language }: { facts: Facts; fileName: string; sha256: string; zone: string; language: string | null } = $props();

	const lines = $derived(
		(
			[
				['File', fileName],
				['PDF version', facts.version],
				[
					'Page sizes',
					facts.sizes
						.slice(0, 6)
						.map((s) => `${counted(s.pages, 'page', 'pages')} ${paperWords([s])}`)
						.join(', ')
				],
				['Text', { yes: 'Yes', partly: `On ${facts.textPages} of ${facts.pages} pages`, no: 'None: pictures of pages' }[facts.text]],
				[
					'Language',
					language ? `${languageWords(language)}${facts.language ? ', as the file says' : facts.guessed === language ? ', by its words' : ''}` : 'Not known'
				],
				['Tagged for reading aloud', facts.tagged ? 'Yes' : 'No'],
				['Title in the file', facts.title],
				['Author', facts.author],
				['Subject', facts.subject],
				['Made', facts.createdAt === null ? null : dayText(new Date(facts.createdAt).toISOString(), zone)],
				['Changed', facts.changedAt === null ? null : dayText(new Date(facts.changedAt).toISOString(), zone)],
				['Made by', facts.producer],
				['Outline', facts.outline.length ? counted(facts.outline.length, 'heading', 'headings') : null],
				['Attachments', facts.attachments.length ? facts.attachments.map((a) => a.name).join(', ') : null],
				['Form', facts.form ? (facts.xfa ? 'XFA' : 'Yes') : null],
				['Signed', facts.signed ? 'Yes' : null],
				['Encrypted', facts.encrypted ? `Yes${facts.permits.print ? '' : ', printing forbidden'}${facts.permits.copy ? '' : ', copying forbidden'}` : null],
				['Active content', facts.active.length ? facts.active.join(', ') : null],
				['SHA-256', sha256]
			] as const
		).filter(([, value]) => value)
	);
</script>

<details>
	<summary>Facts of the file</summary>
	<dl>
		{#each lines as [name, value] (name)}<dt>{name}</dt>
			<dd>{value}</dd>{/each}
	</dl>
	{#if facts.outline.length}
		<ul>
			{#each facts.outline.slice(0, 40) as line, i (i)}<li style="padding-left:{line.depth * 14}px">
					{line.title}{#if line.page}<span class="soft">, p. {line.page}</span>{/if}
				</li>{/each}
			{#if facts.outline.length > 40}<li class="soft">and {facts.outline.length - 40} more</li>{/if}
		</ul>
	{/if}
</details>

<style>
	details {
		margin-top: 6px;
		font-size: 13px;
	}
	summary {
		cursor: pointer;
		color: var(--verdigris);
		font-weight: 600;
	}
	dl {
		display: grid;
		grid-template-columns: 120px minmax(0, 1fr);
		gap: 2px 10px;
		margin-top: 4px;
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		overflow-wrap: anywhere;
	}
	ul {
		margin-top: 6px;
		border-top: 1px solid var(--line);
		padding-top: 4px;
	}
</style>

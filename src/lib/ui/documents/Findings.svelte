<!-- What the check found, each with what it means for a reader and, where a press can mend it, that press. -->
<script lang="ts">
	import { Button, Input } from '$lib/ui/parts/controls';
	import type { Finding } from '#core/intake/condition';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';

	let { slug, findings, edition }: { slug: string; findings: readonly Finding[]; edition: number } = $props();
	let password = $state('');
	let busy = $state('');

	async function make(what: 'clean' | 'unlock', words: string) {
		busy = what;
		const change = async () => {
			const path = { slug };
			await (what === 'clean' ? call('post /documents/{slug}/clean', { path }) : call('post /documents/{slug}/unlock', { path, body: { password } }));
			password = '';
		};
		await act(words, change, what === 'clean' ? () => call('patch /documents/{slug}', { path: { slug }, body: { edition } }) : null);
		busy = '';
	}
</script>

{#each findings as finding (finding.code)}
	<div class="finding" class:wrong={finding.code === 'locked' || finding.code === 'not-drawn'}>
		<p>{finding.text}</p>
		{#if finding.remedy === 'clean'}
			<Button class="mt-1.5" disabled={busy !== ''} onclick={() => make('clean', 'The edition in force carries no active content. The original is kept below.')}
				>{busy === 'clean' ? 'Cleaning…' : 'Make a cleaned edition'}</Button
			>
		{:else if finding.remedy === 'password'}
			<form
				class="mt-1.5 flex gap-2"
				onsubmit={(e) => {
					e.preventDefault();
					void make('unlock', 'Unlocked. The password was not kept.');
				}}
			>
				<Input
					class="min-w-0 grow"
					type="password"
					autocomplete="off"
					aria-label="Password of the file"
					placeholder="Password of the file"
					bind:value={password}
					required
				/>
				<Button type="submit" kind="main" disabled={busy !== ''}>{busy === 'unlock' ? 'Unlocking…' : 'Unlock'}</Button>
			</form>
		{/if}
	</div>
{/each}

<style>
	.finding {
		background: var(--brass-wash);
		color: var(--brass);
		padding: 6px 10px;
		border-radius: var(--corner);
		font-size: 13px;
		margin-top: 6px;
	}
	.finding.wrong {
		background: var(--brick-wash);
		color: var(--brick);
	}
</style>

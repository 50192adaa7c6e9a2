<!-- The topics of a document: each taken away by a press, others added with completion. -->
<script lang="ts">
	import { Button, Input } from '$lib/ui/parts/controls';
	let { topics, all, change }: { topics: readonly string[]; all: readonly string[]; change: (topics: string[], words: string) => void } = $props();
	const id = $props.id();
	let text = $state('');

	function add() {
		const name = text.trim();
		text = '';
		if (name && !topics.includes(name)) change([...topics, name], `“${name}” added.`);
	}
</script>

<div>
	<label class="soft" for={id}>Topics</label>
	<div class="topics">
		{#each topics as topic (topic)}
			<span class="topic"
				>{topic}<Button
					kind="bare"
					aria-label="Take “{topic}” away"
					onclick={() =>
						change(
							topics.filter((t) => t !== topic),
							`“${topic}” taken away.`
						)}>×</Button
				></span
			>
		{/each}
		<Input
			{id}
			list="{id}-list"
			placeholder={topics.length ? 'Another' : 'Add a topic'}
			maxlength={80}
			bind:value={text}
			onkeydown={(e) => {
				if (e.key === 'Enter' || e.key === ',') {
					e.preventDefault();
					add();
				} else if (e.key === 'Backspace' && text === '' && topics.length) change(topics.slice(0, -1), `“${topics[topics.length - 1]}” taken away.`);
			}}
			onchange={add}
		/>
	</div>
	<datalist id="{id}-list"
		>{#each all.filter((t) => !topics.includes(t)) as name (name)}<option value={name}></option>{/each}</datalist
	>
</div>

<style>
	label {
		font-size: 12.5px;
	}
	.topics {
		display: flex;
		flex-wrap: wrap;
		gap: 5px;
		padding: 4px;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		background: var(--sheet);
		min-height: 36px;
	}
	.topics:focus-within {
		outline: 2px solid var(--brass-bright);
		outline-offset: 2px;
	}
	.topic {
		display: inline-flex;
		align-items: center;
		gap: 4px;
		padding: 2px 4px 2px 8px;
		background: var(--sunk);
		border-radius: 2px;
	}
	.topic :global(button) {
		padding: 0 4px;
		cursor: pointer;
		color: var(--ink-soft);
	}
	.topics :global(input) {
		flex: 1;
		height: auto;
		min-width: 90px;
		border: 0;
		padding: 0 4px;
		background: transparent;
		font-size: 14px;
		outline: none;
		box-shadow: none;
	}
</style>

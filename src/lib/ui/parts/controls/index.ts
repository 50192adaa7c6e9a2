/** What is pressed and filled in at the desk: Flowbite Svelte's controls in our look (base.css), each with its defaults in one place. */
export { default as Button } from './Button.svelte';
export { default as Checkbox } from './Checkbox.svelte';
export { default as Day } from './Day.svelte';
export { default as Fileupload } from './Fileupload.svelte';
export { default as Input } from './Input.svelte';
export { default as Moment } from './Moment.svelte';
export { default as Radio } from './Radio.svelte';
export { default as Range } from './Range.svelte';
export { default as Select } from './Select.svelte';
export { default as Textarea } from './Textarea.svelte';

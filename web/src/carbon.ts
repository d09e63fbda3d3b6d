/** The Carbon components in use, each by its own path: the package's index would compile all of them. */
export { default as Button } from 'carbon-components-svelte/src/Button/Button.svelte';
export { default as Checkbox } from 'carbon-components-svelte/src/Checkbox/Checkbox.svelte';
export { default as ContentSwitcher } from 'carbon-components-svelte/src/ContentSwitcher/ContentSwitcher.svelte';
export { default as FileUploaderButton } from 'carbon-components-svelte/src/FileUploader/FileUploaderButton.svelte';
export { default as Form } from 'carbon-components-svelte/src/Form/Form.svelte';
export { default as InlineNotification } from 'carbon-components-svelte/src/Notification/InlineNotification.svelte';
export { default as Modal } from 'carbon-components-svelte/src/Modal/Modal.svelte';
export { default as OverflowMenu } from 'carbon-components-svelte/src/OverflowMenu/OverflowMenu.svelte';
export { default as OverflowMenuItem } from 'carbon-components-svelte/src/OverflowMenu/OverflowMenuItem.svelte';
export { default as PasswordInput } from 'carbon-components-svelte/src/TextInput/PasswordInput.svelte';
export { default as Select } from 'carbon-components-svelte/src/Select/Select.svelte';
export { default as SelectItem } from 'carbon-components-svelte/src/Select/SelectItem.svelte';
export { default as Switch } from 'carbon-components-svelte/src/ContentSwitcher/Switch.svelte';
export { default as TextArea } from 'carbon-components-svelte/src/TextArea/TextArea.svelte';
export { default as TextInput } from 'carbon-components-svelte/src/TextInput/TextInput.svelte';

import { Push } from '../../look/parts.js';
import { Actions, Window } from '../../look/Window.js';
import { ChannelsPanel } from './ChannelsPanel.js';

/** The channels in a window of their own. */
export function ChannelsWindow({ onClose }: { onClose(): void }) {
  return (
    <Window title="Channels side by side" isOpen width={860} onClose={onClose}>
      <ChannelsPanel onGone={onClose} />
      <Actions>
        <Push onPress={onClose}>Close</Push>
      </Actions>
    </Window>
  );
}

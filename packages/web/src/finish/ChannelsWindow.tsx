import { useBenchState } from '../bench/model/context.js';
import { ChannelsPanel } from '../intake/ChannelsPanel.js';
import { Push } from '../look/parts.js';
import { Actions, Window } from '../look/Window.js';
import { useFinish } from './model/context.js';

/** The channels in a window of their own; a choice becomes a step of the tone stack. */
export function ChannelsWindow({ onClose }: { onClose(): void }) {
  const finish = useFinish();
  const picture = useBenchState((s) => s.records?.picture ?? null);
  return (
    <Window title="Channels side by side" isOpen width={860} onClose={onClose}>
      {picture && (
        <ChannelsPanel
          picture={picture}
          chosen={null}
          note="It becomes a step that can be changed or taken away."
          onChoose={(weights, label) => {
            if (weights) void finish.addActs([{ kind: 'grey', weights: [...weights] }], label);
            onClose();
          }}
        />
      )}
      <Actions>
        <Push onPress={onClose}>Close</Push>
      </Actions>
    </Window>
  );
}

import { Button, ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled, { css } from 'styled-components';
import { look } from './theme.js';

const pressable = css`
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  background: ${look.paperHigh};
  padding: 0 10px;
  min-height: 28px;
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  cursor: default;
  white-space: nowrap;
  &[data-hovered] {
    background: ${look.paperDeep};
  }
  &[data-pressed] {
    background: ${look.hairline};
  }
  &[data-disabled] {
    color: #8b8f8a;
    background: transparent;
  }
  &[data-focus-visible] {
    outline: 2px solid ${look.done};
    outline-offset: 1px;
  }
`;

/** An ordinary action. */
export const Push = styled(Button)`
  ${pressable}
`;

/** The action a place is there for. */
export const MainPush = styled(Button)`
  ${pressable}
  background: ${look.done};
  border-color: ${look.done};
  color: #fff;
  font-weight: 600;
  &[data-hovered] {
    background: #185a51;
  }
  &[data-pressed] {
    background: #134a43;
  }
  &[data-disabled] {
    background: ${look.paperDeep};
    border-color: ${look.hairline};
    color: #8b8f8a;
  }
`;

/** A quiet action that is only a word or a sign. */
export const Quiet = styled(Button)`
  ${pressable}
  border-color: transparent;
  background: transparent;
  padding: 0 6px;
  min-width: 28px;
`;

/** One of several, side by side. */
export const Choices = styled(ToggleButtonGroup)`
  display: inline-flex;
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  overflow: hidden;
  flex-shrink: 0;
  justify-self: start;
  background: ${look.paperHigh};
`;

export const Choice = styled(ToggleButton)`
  border: 0;
  border-right: 1px solid ${look.hairline};
  background: transparent;
  min-height: 28px;
  padding: 0 11px;
  white-space: nowrap;
  cursor: default;
  display: inline-flex;
  align-items: center;
  gap: 6px;
  &:last-child {
    border-right: 0;
  }
  &[data-hovered] {
    background: ${look.paperDeep};
  }
  &[data-selected] {
    background: ${look.ink};
    color: ${look.paper};
  }
  &[data-disabled] {
    color: #8b8f8a;
  }
  &[data-focus-visible] {
    outline: 2px solid ${look.done};
    outline-offset: -2px;
  }
`;

/** Something that is on or off, standing alone. */
export const Toggle = styled(Choice)`
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  background: ${look.paperHigh};
  flex-shrink: 0;
  &:last-child {
    border-right: 1px solid ${look.hairline};
  }
`;

/** A measurement. */
export const Figure = styled.span`
  font: 500 12px/1.3 ${look.figures};
  font-variant-numeric: tabular-nums;
`;

/** A small caption over or beside something. */
export const Caption = styled.span`
  font-size: 11px;
  line-height: 16px;
  color: ${look.inkSoft};
`;

/** Something that was found or made, set apart from what can be asked. */
export const Noted = styled.section`
  display: grid;
  gap: 6px;
  justify-items: start;
  padding: 8px 10px;
  border-left: 3px solid ${look.done};
  background: ${look.paperHigh};
  a {
    color: ${look.done};
  }
`;

/** Says what is wrong and what to do. */
export const Warning = styled.div.attrs({ role: 'alert' })`
  border-left: 3px solid ${look.todo};
  background: ${look.todoSoft};
  color: ${look.ink};
  padding: 8px 12px;
  border-radius: 0 ${look.corner} ${look.corner} 0;
`;

import type { CautionPlace } from '@tersum/core';
import { cautionsAt } from '@tersum/core';
import { TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { Quiet } from '../look/parts.js';
import { look } from '../look/theme.js';

const KEY = 'tersum.cautions.known';

function known(): readonly string[] {
  const list: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
  return Array.isArray(list) ? list.map(String) : [];
}

/** Cautions that apply at a place, each until somebody says that they know it. */
export function CautionNotes({ place }: { readonly place: CautionPlace }) {
  const [put, setPut] = useState(known);
  const shown = cautionsAt(place).filter((c) => !put.includes(c.id));
  const away = (id: string): void => {
    const next = [...put, id];
    localStorage.setItem(KEY, JSON.stringify(next));
    setPut(next);
  };
  return shown.map(({ id, text }) => (
    <Note key={id} role="note">
      <TriangleAlert size={15} aria-hidden />
      <p>{text}</p>
      <Quiet onPress={() => away(id)}>Known</Quiet>
    </Note>
  ));
}

const Note = styled.div`
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 10px;
  align-items: center;
  padding: 8px 10px 8px 12px;
  margin-bottom: 8px;
  border-left: 3px solid ${look.todo};
  background: ${look.todoSoft};
  font-size: 12px;
  svg {
    color: ${look.todo};
  }
`;

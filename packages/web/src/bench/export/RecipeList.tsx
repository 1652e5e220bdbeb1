import type { ExportRequest, KeptRecipe } from '@tersum/document';
import { BookmarkPlus, X } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { dropRecipe, keepRecipe } from '../../api/exports.js';
import { Caption, Push, Quiet, Warning } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { Tick } from '../../look/Tick.js';

interface ListProps {
  readonly recipes: readonly KeptRecipe[];
  readonly ticked: ReadonlySet<string>;
  /** What stands in the form, to be kept. */
  readonly order: ExportRequest;
  onTick(ticked: ReadonlySet<string>): void;
  onUse(recipe: KeptRecipe): void;
}

/** Ways of delivering that were kept: ticked ones are made together, and what the form says can be kept as another. */
export function RecipeList({ recipes, ticked, order, onTick, onUse }: ListProps) {
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const attempt = (act: Promise<unknown>): void => {
    act.then(
      () => setProblem(null),
      (error: unknown) => setProblem(messageOf(error)),
    );
  };
  return (
    <Part aria-label="Recipes">
      <h3>Recipes</h3>
      {recipes.length === 0 && (
        <Caption>Keep what is set here by a name, and make several files at once later.</Caption>
      )}
      {recipes.map((recipe) => (
        <Row key={recipe.id}>
          <Tick
            isSelected={ticked.has(recipe.id)}
            onChange={(on) => {
              const next = new Set(ticked);
              if (on) next.add(recipe.id);
              else next.delete(recipe.id);
              onTick(next);
            }}
          >
            {recipe.name}
          </Tick>
          <Caption>{wordsOf(recipe.order)}</Caption>
          <Quiet onPress={() => onUse(recipe)} aria-label={`Open the recipe ${recipe.name}`}>
            Open
          </Quiet>
          <Quiet
            onPress={() => attempt(dropRecipe(recipe.id))}
            aria-label={`Forget the recipe ${recipe.name}`}
          >
            <X size={13} aria-hidden />
          </Quiet>
        </Row>
      ))}
      {problem && <Warning>{problem}</Warning>}
      <Keep
        onSubmit={(event) => {
          event.preventDefault();
          attempt(keepRecipe({ name, order }).then(() => setName('')));
        }}
      >
        <input
          aria-label="Name of the recipe"
          placeholder="For the web, for the archive …"
          value={name}
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
        />
        <Push type="submit" isDisabled={!name.trim()}>
          <BookmarkPlus size={14} aria-hidden /> Keep as a recipe
        </Push>
      </Keep>
    </Part>
  );
}

function wordsOf({ format, longest, ppi, finished }: ExportRequest): string {
  return [
    format.toUpperCase(),
    longest ? `${longest} px` : null,
    ppi ? `${ppi} ppi` : null,
    finished ? null : 'repairs alone',
  ]
    .filter(Boolean)
    .join(', ');
}

const Part = styled.section`
  margin-top: 14px;
  padding-top: 10px;
  border-top: 1px solid ${look.hairline};
  h3 {
    font-size: 12px;
    font-weight: 600;
    margin-bottom: 4px;
  }
`;

const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto auto;
  align-items: center;
  gap: 8px;
  min-height: 30px;
`;

const Keep = styled.form`
  display: flex;
  gap: 8px;
  margin-top: 6px;
  input {
    flex: 1;
    min-width: 0;
    border: 1px solid ${look.hairline};
    border-radius: ${look.corner};
    background: ${look.paperHigh};
    padding: 2px 8px;
  }
`;

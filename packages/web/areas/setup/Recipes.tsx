import type { Done, RecipeRow } from '@osier/contract';
import { Button, Input } from 'antd';
import { useRef, useState } from 'react';
import { refresh, useApi } from '../../api/queries';
import { post, problemText, put } from '../../api/request';
import { Mark } from '../../parts/Mark';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';

/** The recipes of this library: read, put in order, renamed, taken away, sent to others and taken over from them. */
export function Recipes() {
  const { data: recipes = [] } = useApi<RecipeRow[]>('/recipes');
  const mayChange = useMay('take in deliveries');
  const { say, complain } = useShell();
  const file = useRef<HTMLInputElement>(null);
  const act = async (doing: () => Promise<Done>) => {
    try {
      const done = await doing();
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <div className="stack">
      <p className="faded">
        A recipe is made by doing: correct one incoming record, open “What cleaning changed”, and keep the
        steps.
      </p>
      {recipes.map((r) => (
        <RecipeCard
          key={`${r.id} ${r.version}`}
          recipe={r}
          mayChange={mayChange && r.version !== null}
          act={act}
        />
      ))}
      {mayChange ? (
        <div>
          <Button onClick={() => file.current!.click()}>Take over a recipe from a file</Button>
          <input
            ref={file}
            type="file"
            accept=".json"
            hidden
            aria-label="Recipe file"
            onChange={(e) => {
              const chosen = e.target.files?.[0];
              e.target.value = '';
              if (chosen) void act(async () => post<Done>('/recipes/import', { text: await chosen.text() }));
            }}
          />
        </div>
      ) : null}
    </div>
  );
}

function RecipeCard({
  recipe,
  mayChange,
  act,
}: {
  recipe: RecipeRow;
  mayChange: boolean;
  act: (doing: () => Promise<Done>) => Promise<void>;
}) {
  const [name, setName] = useState(recipe.name);
  const steps = recipe.steps.map((s) => s.step);
  const save = (changes: { name?: string; steps?: RecipeRow['steps'][number]['step'][] }) =>
    act(() =>
      put<Done>(`/recipes/${recipe.id}`, { name: recipe.name, steps, version: recipe.version, ...changes }),
    );
  const moved = (i: number) => [...steps.slice(0, i - 1), steps[i]!, steps[i - 1]!, ...steps.slice(i + 1)];
  return (
    <section className="recipe-card" aria-label={recipe.name}>
      <div className="row spread">
        {mayChange ? (
          <Input
            aria-label="Name of the recipe"
            value={name}
            style={{ maxWidth: 340 }}
            onChange={(e) => setName(e.target.value)}
            onPressEnter={() => void save({ name })}
            onBlur={() => name.trim() !== recipe.name && void save({ name })}
          />
        ) : (
          <h2>{recipe.name}</h2>
        )}
        <span className="row">
          {recipe.version === null ? <span className="faded">comes with Osier</span> : null}
          <a href={`/api/recipes/${recipe.id}/file`}>Save as a file</a>
          {mayChange ? (
            <button
              className="fix"
              onClick={() =>
                void act(() => post<Done>(`/recipes/${recipe.id}/remove`, { version: recipe.version }))
              }
            >
              Take it away
            </button>
          ) : null}
        </span>
      </div>
      <ol>
        {recipe.steps.map(({ sentence }, i) => (
          <li key={i}>
            {sentence}
            {mayChange ? (
              <span className="row step-acts">
                {i > 0 ? (
                  <button
                    className="fix"
                    aria-label={`Move step ${i + 1} up`}
                    onClick={() => void save({ steps: moved(i) })}
                  >
                    ↑
                  </button>
                ) : null}
                {steps.length > 1 ? (
                  <button
                    className="fix"
                    aria-label={`Take step ${i + 1} out`}
                    onClick={() => void save({ steps: steps.filter((_, k) => k !== i) })}
                  >
                    ✕
                  </button>
                ) : null}
              </span>
            ) : null}
          </li>
        ))}
      </ol>
      {recipe.steps.length === 0 ? (
        <p>
          <Mark kind="caution" /> No step.
        </p>
      ) : null}
    </section>
  );
}

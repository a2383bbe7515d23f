import { api } from '@osier/contract';
import { recipeFile } from '@osier/core/recipes';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { changeRecipe, importRecipe, keepRecipe, listRecipes, recipeNamed, removeRecipe } from './recipes';

/** Recipes: keep, change, import, export. */
export function recipeRoutes(services: Services): Route[] {
  return [
    route(api.recipes.list, () => listRecipes(services)),
    route(api.recipes.keep, ({ person, body }) => keepRecipe(services, person.id, body)),
    route(api.recipes.import, ({ person, body }) => importRecipe(services, person.id, body.text)),
    route(api.recipes.change, ({ params, person, body }) =>
      changeRecipe(services, person.id, params.id, body),
    ),
    route(api.recipes.remove, ({ params, person, body }) =>
      removeRecipe(services, person.id, params.id, body.version),
    ),
    route(api.recipes.file, async ({ params, res }) => {
      const recipe = await recipeNamed(services.store, params.name);
      const name = recipe.name.replace(/[^A-Za-z0-9-]+/g, '-').toLowerCase();
      res.setHeader('content-disposition', `attachment; filename="${name}.recipe.json"`);
      res.type('json').send(recipeFile(recipe));
      return undefined;
    }),
  ];
}

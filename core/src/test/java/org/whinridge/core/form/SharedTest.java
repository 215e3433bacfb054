package org.whinridge.core.form;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.edit.FormEdit;
import org.whinridge.core.said.English;

/** What several questions share, and what depends on what. */
class SharedTest {
  private static final Form FORM =
      Form.read(
          """
          {"title": "F",
           "rules": [{"name": "deep", "label": "it is deep", "rule": "silt > 300"}],
           "lookUps": {"beats": {"layer": "b", "layerName": "Beats", "filter": "district = answers.kind"}},
           "sections": [
            {"title": "One", "questions": [
             {"name": "kind", "label": "Kind", "type": "text"},
             {"name": "silt", "label": "Silt", "type": "whole",
              "checks": [{"rule": "silt <= last.silt + 5", "message": "{silt} of {kind}"}]},
             {"name": "beat", "label": "Beat", "type": "text", "prefill": [{"from": "place", "lookUp": "beats", "field": "name"}]}]},
            {"name": "defects", "title": "Defects", "askWhen": "deep", "rows": {}, "questions": [
             {"name": "length_m", "label": "Length", "type": "decimal", "askWhen": "kind = 'x'"}]},
            {"title": "Sum", "questions": [
             {"name": "total", "label": "Total", "type": "decimal", "workOut": "sum(defects.length_m)"},
             {"name": "broken", "label": "Broken", "type": "text", "askWhen": "silt >"}]}]}""");

  private static Form edit(Form f, String edit) {
    return FormEdit.apply(f, Json.parse(edit.replace('\'', '"')).asObject());
  }

  @Test
  void whatDependsOnWhatIsTold() {
    assertThat(FormUses.of(FORM))
        .extracting(u -> u.by() + " " + u.part().id() + " " + u.reads())
        .containsExactly(
            "silt message kind",
            "beat prefill beats",
            "defects section_ask_when deep",
            "length_m ask_when kind",
            "total work_out length_m",
            "deep shared_rule silt",
            "beats prefill kind");
    assertThat(FormUses.json(FormUses.of(FORM)).get(0).asObject().getString("part", ""))
        .isEqualTo("message");
  }

  @Test
  void aSharedRuleIsAddedChangedRenamedAndRemoved() {
    Form f = edit(FORM, "{'op':'rule.set','name':'wet','label':'It is wet','rule':'kind = 1'}");
    assertThat(f.rules()).hasSize(2);
    f = edit(f, "{'op':'rule.set','name':'deep','label':'Deep','rule':'silt > 200'}");
    assertThat(f.rules().get(0)).isEqualTo(new NamedRule("deep", "Deep", "silt > 200"));
    f = edit(f, "{'op':'rename','question':'deep','value':'deeper'}");
    assertThat(f.sections().get(1).askWhen()).isEqualTo("deeper");
    f = edit(f, "{'op':'rule.remove','name':'wet'}");
    assertThat(f.rules()).hasSize(1);
    Form without = f;
    assertThatThrownBy(() -> edit(without, "{'op':'rule.remove','name':'wet'}"))
        .satisfies(English.says("wet"));
    Form last = f;
    assertThatThrownBy(() -> edit(last, "{'op':'rule.set','name':'silt','rule':'x'}"))
        .satisfies(English.says("silt"));
    assertThatThrownBy(() -> edit(last, "{'op':'rule.set','name':'no name','rule':'x'}"))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void aSharedLookUpThatGoesStaysWithWhoUsedIt() {
    Form f = edit(FORM, "{'op':'lookUp.rename','name':'beats','value':'the beats'}");
    assertThat(f.lookUps()).containsOnlyKeys("the beats");
    assertThat(f.question("beat").orElseThrow().json().toString()).contains("\"the beats\"");
    f =
        edit(
            f,
            "{'op':'lookUp.set','name':'the beats','lookUp':{'layer':'b','layerName':'Beats','how':'nearest','withinM':20}}");
    assertThat(f.lookUps().get("the beats").withinM()).isEqualTo(20);
    f = edit(f, "{'op':'lookUp.remove','name':'the beats'}");
    assertThat(f.lookUps()).isEmpty();
    assertThat(f.question("beat").orElseThrow().json().toString())
        .contains("\"layer\":\"b\"", "\"withinM\":20", "\"field\":\"name\"");
    Form last = f;
    assertThatThrownBy(() -> edit(last, "{'op':'lookUp.remove','name':'beats'}"))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> edit(FORM, "{'op':'lookUp.set','name':' ','lookUp':{'layer':'b'}}"))
        .satisfies(English.says("needs a name"));
    assertThatThrownBy(() -> edit(FORM, "{'op':'lookUp.nothing','name':'beats'}"))
        .isInstanceOf(IllegalArgumentException.class);
  }
}

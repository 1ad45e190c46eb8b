package org.ysthmos.app.bridge;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.bridge.BridgeViews.BothWays;
import org.ysthmos.app.bridge.BridgeViews.KeptField;
import org.ysthmos.app.bridge.BridgeViews.KeptPlace;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.CompiledTwoWay.Translation;
import org.ysthmos.core.bridge.TwoWay;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.recurrence.RuleSentence;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.sync.BothChanged;
import org.ysthmos.core.sync.Direction;
import org.ysthmos.core.sync.Drift;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.WhenGone;

/** Two places that are kept alike, in the words of the screens. */
final class BothWaysViews {

  private BothWaysViews() {}

  static BothWays of(CompiledTwoWay both) {
    return new BothWays(
        place(both, Side.LEFT),
        place(both, Side.RIGHT),
        both.fields().stream().map(field -> field(field, both)).toList(),
        every(both.rule().check()),
        at(both.rule().check()));
  }

  private static @Nullable Long every(Optional<TwoWay.Check> check) {
    return check
        .filter(TwoWay.Check.Every.class::isInstance)
        .map(one -> ((TwoWay.Check.Every) one).span().toSeconds())
        .orElse(null);
  }

  private static String at(Optional<TwoWay.Check> check) {
    return check
        .filter(TwoWay.Check.AtTimes.class::isInstance)
        .map(one -> RuleSentence.of(((TwoWay.Check.AtTimes) one).times()))
        .orElse("");
  }

  private static KeptPlace place(CompiledTwoWay both, Side side) {
    CompiledTwoWay.CompiledPlace place = both.place(side);
    return new KeptPlace(
        place.shape().systemName(),
        place.shape().name(),
        place.rule().events(),
        place.rule().when().equals(Condition.ALWAYS)
            ? List.of()
            : BridgeViews.conditions(place.when()),
        place.rule().begins(),
        ifGone(place.rule().whenGone()));
  }

  private static String ifGone(WhenGone when) {
    return switch (when) {
      case ASK -> "a person is asked";
      case CLOSE -> "the other is closed";
      case DELETE -> "the other is deleted";
      case PART -> "the other goes on by itself";
      case MAKE_AGAIN -> "it is made again";
    };
  }

  private static KeptField field(CompiledTwoWay.Field field, CompiledTwoWay both) {
    TwoWay.Field rule = field.rule();
    boolean bothWays = rule.direction() == Direction.BOTH;
    return new KeptField(
        rule.name().replace('-', ' '),
        field.at().left().shape().name(),
        field.at().right().shape().name(),
        DocumentNode.wordOf(rule.direction()),
        words(field, Side.RIGHT),
        words(field, Side.LEFT),
        bothWays ? bothChanged(rule.both(), both) : "",
        bothWays || rule.direction() == Direction.ONCE ? "" : drift(rule.drift()));
  }

  private static List<String> words(CompiledTwoWay.Field field, Side to) {
    return switch (field.to().of(to)) {
      case Translation.None none -> List.of();
      case Translation.BySteps steps -> steps.field().value().chain().sentences();
      case Translation.ByPair pair -> List.of("the task that stands for it");
      case Translation.ByValues values -> {
        FieldShape from = field.at().of(to.across()).shape();
        FieldShape at = field.at().of(to).shape();
        TwoWay.Translation.Values written =
            (TwoWay.Translation.Values) field.rule().to(to).orElseThrow();
        yield Stream.concat(
                written.values().sequencedEntrySet().stream()
                    .map(one -> from.nameOf(one.getKey()) + " → " + at.nameOf(one.getValue())),
                written.otherwise().stream().map(other -> "all others → " + at.nameOf(other)))
            .toList();
      }
    };
  }

  private static String bothChanged(BothChanged both, CompiledTwoWay places) {
    return switch (both) {
      case ASK -> "a person is asked";
      case LEFT_WINS -> places.place(Side.LEFT).shape().systemName() + " is right";
      case RIGHT_WINS -> places.place(Side.RIGHT).shape().systemName() + " is right";
      case LATER_WINS -> "the later is right";
      case MERGE -> "both are brought together";
    };
  }

  private static String drift(Drift drift) {
    return switch (drift) {
      case LEAVE -> "a change on the side that follows stays";
      case RESTORE -> "a change on the side that follows is undone";
      case ASK -> "a change on the side that follows is asked about";
    };
  }
}
